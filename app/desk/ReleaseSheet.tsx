import { useRouter } from 'expo-router';
import { useEffect } from 'react';
import { useTranslation } from 'react-i18next';
import { api, setMarked, tell, troubleOf, useSend, words } from '../state/index.ts';
import { number, distance, mass } from '../text/index.ts';
import { Column, Facts, Failed, Key, Loading, Sheet, Signal, Txt } from '../ui/index.ts';

const SHOWN = 12;

/** What a release of the marked orders would do, and the key that does it. */
export function ReleaseSheet({ orders, onClose }: { orders: string[]; onClose: () => void }) {
  const { t } = useTranslation();
  const router = useRouter();
  const send = useSend();
  const [look, { data, error }] = api.usePreviewReleaseMutation();
  const [release, { isLoading, error: refused }] = api.useReleaseMutation();
  useEffect(() => {
    void look(orders);
  }, [look, orders]);
  const go = async () => {
    const done = await release(orders);
    if (!done.data) return;
    send(setMarked([]));
    onClose();
    send(
      tell({
        kind: 'done',
        text: t('release.done', {
          number: done.data.number,
          orders: t('unit.orders', { count: done.data.preview.orders }),
        }),
      }),
    );
    router.navigate(`/waves/${done.data.wave}`);
  };
  const nothing = data?.units === 0;
  return (
    <Sheet
      title={t('release.title')}
      onClose={onClose}
      keys={
        <>
          <Key title={t('release.cancel')} onPress={onClose} />
          <Key
            kind="act"
            title={t('orders.release', { count: data?.orders ?? orders.length })}
            disabled={!data || nothing}
            busy={isLoading}
            onPress={() => void go()}
          />
        </>
      }
    >
      {error && <Failed text={words(troubleOf(error))} onRetry={() => void look(orders)} />}
      {refused && <Failed text={words(troubleOf(refused))} />}
      {!data && !error && <Loading rows={3} />}
      {data && (
        <>
          <Facts
            figures
            min={90}
            facts={[
              { name: t('release.orders'), value: number(data.orders) },
              { name: t('release.complete'), value: number(data.ordersComplete) },
              { name: t('release.lines'), value: number(data.lines) },
              { name: t('release.units'), value: number(data.units) },
              { name: t('release.runs'), value: number(data.runs) },
              { name: t('release.walk'), value: distance(data.metres) },
              { name: t('release.weight'), value: mass(data.weightG) },
            ]}
          />
          {data.shorts.length === 0 ? (
            <Signal kind="done" text={t('release.allCovered')} size="body" />
          ) : (
            <Column gap={4}>
              <Signal kind="caution" text={t('release.shorts', { count: data.shorts.length })} size="body" />
              {data.shorts.slice(0, SHOWN).map((s) => (
                <Txt key={`${s.order} ${s.line}`} kind="small">
                  {t('release.short', { ...s })}
                </Txt>
              ))}
              {data.shorts.length > SHOWN && (
                <Txt kind="small" colour="quiet">
                  {t('release.more', { count: data.shorts.length - SHOWN })}
                </Txt>
              )}
            </Column>
          )}
          {data.nothing.length > 0 && (
            <Txt kind="small" colour="quiet">
              {t('release.nothing', {
                count: data.nothing.length,
                orders:
                  data.nothing.slice(0, SHOWN).join(', ') +
                  (data.nothing.length > SHOWN ? ` ${t('release.more', { count: data.nothing.length - SHOWN })}` : ''),
              })}
            </Txt>
          )}
        </>
      )}
    </Sheet>
  );
}
