import { useRouter } from 'expo-router';
import { useState } from 'react';
import { useTranslation } from 'react-i18next';
import { View } from 'react-native';
import { api, troubleOf, useMe, useNow, words } from '../state/index.ts';
import { number, relative, timeOf } from '../text/index.ts';
import {
  Button,
  Card,
  Empty,
  Failed,
  LinkBox,
  Loading,
  Row,
  ScanField,
  Shape,
  Signal,
  Text,
  useSurface,
} from '../ui/index.ts';
import { Page } from '../shell/index.ts';
import { BenchChoice } from './BenchChoice.tsx';
import { ScaleKey } from './ScaleKey.tsx';
import { useFindOrder } from './useFindOrder.ts';

/** Carts that wait for packing; scanning a cart, one of its places, a run or an order opens it. */
export function BenchView() {
  const { t } = useTranslation();
  const router = useRouter();
  const me = useMe();
  const now = useNow();
  const surface = useSurface();
  const { data, error, refetch } = api.useBenchQuery();
  const findOrder = useFindOrder();
  const [wrong, setWrong] = useState<string | null>(null);
  const open = (order: string) => router.navigate(`/bench/orders/${order}`);
  const scanned = async (code: string) => {
    const found = await findOrder(code);
    if ('wrong' in found) return setWrong(found.wrong);
    setWrong(null);
    open(found.order);
  };
  return (
    <Page
      title={t('bench.title')}
      aside={
        data && (
          <Row gap={16}>
            <Button size="small" title={t('pallets.title')} onPress={() => router.navigate('/pallets')} />
            <ScaleKey />
            <BenchChoice benches={data.benches} />
          </Row>
        )
      }
    >
      <ScanField label={t('bench.ask')} onCode={(code) => void scanned(code)} />
      {wrong && (
        <View role="alert">
          <Signal kind="refused" text={wrong} size="strong" />
        </View>
      )}
      {error && <Failed text={words(troubleOf(error))} onRetry={() => void refetch()} />}
      {!data && !error && <Loading rows={3} height={120} />}
      {data?.runs.length === 0 && <Empty title={t('bench.emptyTitle')} text={t('bench.emptyText')} />}
      {data?.runs.map((run) => (
        <Card key={run.id} gap={10}>
          <Row gap={16} style={{ justifyContent: 'space-between' }}>
            <Row gap={16}>
              <Text kind="title">{run.callSign}</Text>
              <Text colour="quiet">
                {[run.cart, run.lane, run.picker && t('bench.picker', { name: run.picker })]
                  .filter(Boolean)
                  .join(' · ')}
              </Text>
            </Row>
            <Text colour="quiet">
              {run.leavesAt ? `${timeOf(run.leavesAt, me.site.timeZone, now)}, ${relative(run.leavesAt, now)}` : ''}
            </Text>
          </Row>
          <Row gap={8} style={{ alignItems: 'stretch' }}>
            {run.orders.map((o) => {
              const packed = o.packed >= o.units;
              return (
                <LinkBox
                  key={o.id}
                  href={`/bench/orders/${o.id}`}
                  label={`${o.number}, ${t('bench.place', { number: o.position })}`}
                  onOpen={() => open(o.id)}
                  style={{
                    flexGrow: 1,
                    flexBasis: 190,
                    maxWidth: 320,
                    minHeight: 76,
                    padding: 10,
                    borderWidth: 1,
                    borderColor: packed ? surface.line : surface.quiet,
                    borderRadius: 4,
                    backgroundColor: surface.ground,
                  }}
                >
                  <Row gap={8} style={{ flexWrap: 'nowrap', justifyContent: 'space-between' }}>
                    <Text kind="heading">{o.position}</Text>
                    <Text kind="strong">{o.number}</Text>
                  </Row>
                  <Text kind="small" colour="quiet" lines={1}>
                    {o.customer}
                  </Text>
                  <Row gap={6}>
                    {packed && <Shape kind="done" size={12} />}
                    <Text kind="small">
                      {t('bench.packedOf', { packed: number(o.packed), units: number(o.units) })}
                    </Text>
                  </Row>
                </LinkBox>
              );
            })}
          </Row>
        </Card>
      ))}
    </Page>
  );
}
