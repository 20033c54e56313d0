import { useRouter } from 'expo-router';
import { useTranslation } from 'react-i18next';
import type { RunSummary } from '@hand-relay/contract';
import { api, troubleOf, useMe, words } from '../state/index.ts';
import { CartDrawing, endOf, Failed, Button, ScanField, Sheet, SurfaceContext, Text } from '../ui/index.ts';

/** Asks for the cart; what cannot be is said here, and another cart can be scanned. */
export function TakeSheet({ run, onClose }: { run: RunSummary; onClose: () => void }) {
  const { t } = useTranslation();
  const router = useRouter();
  const me = useMe();
  const [take, { isLoading, error }] = api.useTakeRunMutation();
  const goods = run.cart;
  const go = async (cart: string) => {
    const done = await take({ id: run.id, cart });
    if (!done.data) return;
    onClose();
    router.navigate(`/floor/runs/${run.id}`);
  };
  return (
    <SurfaceContext.Provider value="floor">
      <Sheet
        title={t('floor.cartTitle', { number: run.number })}
        onClose={onClose}
        keys={<Button title={t('release.cancel')} size="floor" onPress={onClose} />}
      >
        <Text>
          {goods
            ? t('floor.cartBegun', { cart: goods })
            : run.picking === 'consolidate'
              ? t('floor.cartTogether')
              : t('floor.cartNeeds', { count: run.orders })}
        </Text>
        {!goods && run.picking !== 'consolidate' && run.orders > 1 && me.settings.setUp === 'confirm' && (
          <Text colour="quiet">{t('floor.cartFewer')}</Text>
        )}
        {!goods && run.picking !== 'consolidate' && run.orders > 1 && (
          <CartDrawing
            front={{ places: run.positions, across: null }}
            cells={run.orderList.map((o, i) => ({ number: i + 1, label: endOf(o.number), state: 'open' }))}
            label={t('floor.cartNeeds', { count: run.orders })}
            height={150}
          />
        )}
        <ScanField label={t('floor.cartAsk')} onCode={(code) => void go(code)} disabled={isLoading} />
        {error && <Failed text={words(troubleOf(error))} />}
      </Sheet>
    </SurfaceContext.Provider>
  );
}
