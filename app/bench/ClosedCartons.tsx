import { useTranslation } from 'react-i18next';
import { Linking } from 'react-native';
import type { BenchOrder } from '@hand-relay/contract';
import { PrintKey } from '../shell/index.ts';
import { addressOf, api, notify, troubleOf, useAppDispatch, words } from '../state/index.ts';
import { mass } from '../text/index.ts';
import { Button, Card, Column, Failed, Row, Text } from '../ui/index.ts';
import { thisBench } from './BenchChoice.tsx';

/** Cartons of an order that are closed, with their labels. */
export function ClosedCartons({ order }: { order: BenchOrder }) {
  const { t } = useTranslation();
  const closed = order.cartons.filter((c) => c.state !== 'open');
  if (closed.length === 0) return null;
  const look = (id: string) => void Linking.openURL(addressOf({ name: 'cartonLabel', id }));
  return (
    <Card gap={12}>
      {closed.map((c) => (
        <Column key={c.id} gap={6}>
          <Row gap={12} style={{ justifyContent: 'space-between' }}>
            <Text kind="strong">
              {t('bench.carton', { number: c.number })} · {c.type} · {mass(c.weightG)}
            </Text>
            <Text kind="small" colour="quiet">
              {t(`bench.state.${c.state}`)}
            </Text>
          </Row>
          <Text kind="mono">{c.sscc}</Text>
          <Row gap={8}>
            <PrintKey kind="carton-label" of={c.id} station={thisBench(order.benches)} title={t('bench.printLabel')} />
            <Button icon="file-document-outline" title={t('bench.labelPdf')} onPress={() => look(c.id)} />
            {c.state === 'closed' && <Reopen carton={c} bench={thisBench(order.benches)} />}
          </Row>
        </Column>
      ))}
    </Card>
  );
}

/** Opens a closed carton again, for goods that must out of it or in. */
function Reopen({ carton, bench }: { carton: BenchOrder['cartons'][number]; bench: string }) {
  const { t } = useTranslation();
  const send = useAppDispatch();
  const [reopen, { error, isLoading }] = api.useReopenCartonMutation();
  const open = async () => {
    const done = await reopen({ id: carton.id, bench });
    if (done.data) send(notify({ kind: 'caution', text: t('bench.reopened', { number: carton.number }) }));
  };
  return (
    <>
      <Button title={t('bench.reopen')} busy={isLoading} onPress={() => void open()} />
      {error && <Failed text={words(troubleOf(error))} />}
    </>
  );
}
