import { useRouter } from 'expo-router';
import { useState } from 'react';
import { useTranslation } from 'react-i18next';
import { ScrollView, useWindowDimensions, View } from 'react-native';
import { api, remember, remembered, troubleOf, words } from '../state/index.ts';
import { Choice, Failed, Loading, Text, useShortcuts, useSurface, WIDE } from '../ui/index.ts';
import { Page } from '../shell/index.ts';
import { RunBoard } from './RunBoard.tsx';
import { RunPlan } from './RunPlan.tsx';
import { RunTable } from './RunTable.tsx';
import { WaveHead } from './WaveHead.tsx';
import { WaveOrders } from './WaveOrders.tsx';

type Shown = 'board' | 'list' | 'orders';
const SHOWN = 'wave-shows';

/** One wave: plan it, start it, say who picks what, watch its runs. */
export function WaveView({ id }: { id: string }) {
  const { t } = useTranslation();
  const router = useRouter();
  const surface = useSurface();
  const { width } = useWindowDimensions();
  const wide = width >= WIDE;
  const { data, error, refetch } = api.useWaveQuery(id);
  const [current, setCurrent] = useState<string>();
  const [shown, setShown] = useState<Shown>(() => (remembered(SHOWN) === 'list' ? 'list' : 'board'));
  useShortcuts({ Escape: () => router.navigate('/waves') });
  if (error)
    return (
      <Page title="" onBack={() => router.navigate('/waves')}>
        <Failed text={words(troubleOf(error))} onRetry={() => void refetch()} />
      </Page>
    );
  if (!data) return <Loading />;
  const { wave } = data;
  const runs = data.runs.filter((r) => r.state !== 'cancelled');
  const show = (next: Shown) => {
    if (next !== 'orders') remember(SHOWN, next);
    setShown(next);
  };
  // Without runs there is nothing else to show yet.
  const orders = shown === 'orders' || runs.length === 0;
  const head = <WaveHead wave={wave} orders={data.orders} runs={runs} />;
  const choice = runs.length > 0 && (
    <View style={{ paddingHorizontal: 12, paddingBottom: 8 }}>
      <Choice
        label={t('board.show1')}
        value={shown}
        onChange={show}
        options={[
          { value: 'board', title: t('board.board') },
          { value: 'list', title: t('board.list') },
          { value: 'orders', title: t('waves.orders') },
        ]}
      />
    </View>
  );
  const open = (run: string) => (wide ? setCurrent(run) : router.navigate(`/floor/runs/${run}`));
  const work = orders ? (
    <WaveOrders wave={wave} orders={data.orders} />
  ) : shown === 'board' ? (
    <RunBoard runs={runs} current={current} onCurrent={setCurrent} />
  ) : (
    <RunTable runs={runs} current={current} onOpen={(run) => open(run.id)} />
  );
  return (
    <Page
      title={t('waves.number', { number: wave.number })}
      filled
      onBack={() => router.navigate('/waves')}
      aside={
        <Text kind="heading" colour="quiet">
          {[wave.entry, t(`waves.state.${wave.state}`)].filter(Boolean).join(' · ')}
        </Text>
      }
    >
      {wide ? (
        <>
          {head}
          <View style={{ flex: 1, minHeight: 0, flexDirection: 'row', borderTopWidth: 1, borderColor: surface.line }}>
            <View style={{ flex: 3, minWidth: 0, paddingTop: 8 }}>
              {choice}
              {shown === 'board' && !orders ? <ScrollView style={{ flex: 1 }}>{work}</ScrollView> : work}
            </View>
            {runs.length > 0 && (
              <ScrollView
                style={{ flex: 2, minWidth: 340, borderLeftWidth: 1, borderColor: surface.line }}
                contentContainerStyle={{ padding: 16 }}
              >
                <RunPlan id={runs.some((r) => r.id === current) ? current! : runs[0]!.id} />
              </ScrollView>
            )}
          </View>
        </>
      ) : (
        <ScrollView style={{ flex: 1 }}>
          {head}
          {choice}
          <View
            style={
              orders
                ? { height: 60 * data.orders.length + 160 }
                : shown === 'list'
                  ? { height: 60 * runs.length + 44 }
                  : {}
            }
          >
            {work}
          </View>
        </ScrollView>
      )}
    </Page>
  );
}
