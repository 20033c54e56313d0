import { useRouter } from 'expo-router';
import { useState } from 'react';
import { useTranslation } from 'react-i18next';
import { View } from 'react-native';
import type { BenchQueue } from '@hand-relay/contract';
import { api, remembered, troubleOf, words } from '../state/index.ts';
import { Button, Empty, Failed, Loading, Row, ScanField, Signal, Text } from '../ui/index.ts';
import { Page } from '../shell/index.ts';
import { BenchChoice, thisBench } from './BenchChoice.tsx';
import { ScaleKey } from './ScaleKey.tsx';
import { useFindOrder } from './useFindOrder.ts';
import { WaitingCart } from './WaitingCart.tsx';

/** Carts that wait for packing, those at this bench first; scanning a cart, one of its places, a run or an order opens it. */
export function BenchView() {
  const { t } = useTranslation();
  const router = useRouter();
  const { data, error, refetch } = api.useBenchQuery();
  const findOrder = useFindOrder();
  const [wrong, setWrong] = useState<string | null>(null);
  const [chosen, setChosen] = useState(() => remembered('bench'));
  const [showOthers, setShowOthers] = useState(false);
  const bench = data ? thisBench(data.benches, chosen) : '';
  const runs = data?.runs ?? [];
  const mine = runs.filter((r) => r.atBench && r.lane === bench);
  const free = runs.filter((r) => !r.atBench);
  const others = runs.filter((r) => r.atBench && r.lane !== bench);
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
            <BenchChoice benches={data.benches} value={bench} onChange={setChosen} />
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
      {mine.length > 0 && <Text kind="heading">{t('bench.atMine', { bench: nameOf(data!.benches, bench) })}</Text>}
      {mine.map((run) => (
        <WaitingCart key={run.id} run={run} onOpen={open} />
      ))}
      {mine.length > 0 && free.length > 0 && <Text kind="heading">{t('bench.inLanes')}</Text>}
      {free.map((run) => (
        <WaitingCart key={run.id} run={run} onOpen={open} />
      ))}
      {others.length > 0 && (
        <Button
          icon={showOthers ? 'chevron-up' : 'chevron-down'}
          title={t('bench.atOthers', { count: others.length })}
          pressed={showOthers}
          onPress={() => setShowOthers(!showOthers)}
        />
      )}
      {showOthers && others.map((run) => <WaitingCart key={run.id} run={run} onOpen={open} />)}
    </Page>
  );
}

const nameOf = (benches: BenchQueue['benches'], code: string) => benches.find((b) => b.code === code)?.name ?? code;
