import { useState } from 'react';
import { useTranslation } from 'react-i18next';
import { View } from 'react-native';
import type { RunDetail } from '@hand-relay/contract';
import { afterTold } from '../offline/index.ts';
import { api, deviceName, troubleOf, words } from '../state/index.ts';
import { Column, Failed, Button, Row, Signal, Text } from '../ui/index.ts';
import { PrintKey } from '../shell/index.ts';
import { lastOf } from './card.ts';

/** Cartons on the cart that ship as they are: each is closed here, where nothing more goes in, and gets its label. */
export function CartonsOnCart({ run }: { run: RunDetail }) {
  const { t } = useTranslation();
  const [close, closing] = api.useCloseOnCartMutation();
  const [print, printing] = api.usePrintMutation();
  const [trouble, setTrouble] = useState<unknown>();
  const error = trouble ?? printing.error;
  const closeIt = async (carton: string) => {
    const closed = await afterTold(run.run.id, () => close({ id: run.run.id, carton }));
    setTrouble(closed.error);
    if (!closed.error) await print({ kind: 'carton-label', of: carton, station: deviceName() });
  };
  if (run.cartons.length === 0) return null;
  return (
    <Column gap={8}>
      {error && <Failed text={words(troubleOf(error))} />}
      {run.cartons.map((c) => (
        <Row key={c.id} gap={12} style={{ justifyContent: 'space-between' }}>
          <View style={{ flexShrink: 1 }}>
            <Text>{t('floor.carton', { number: c.number, place: c.position, last: lastOf(c.sscc) })}</Text>
            <Signal
              kind={c.state === 'open' ? 'quiet' : 'done'}
              text={`${t(`bench.state.${c.state}`)} · ${t('floor.cartonHolds', { count: c.units })}`}
            />
          </View>
          {c.state === 'open' ? (
            <Button
              size="floor"
              title={t('floor.closeCarton')}
              disabled={c.units === 0}
              busy={closing.isLoading && closing.originalArgs?.carton === c.id}
              onPress={() => void closeIt(c.id)}
            />
          ) : (
            <PrintKey size="floor" kind="carton-label" of={c.id} title={t('floor.cartonLabel')} />
          )}
        </Row>
      ))}
    </Column>
  );
}
