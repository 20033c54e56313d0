import { useRouter } from 'expo-router';
import { useTranslation } from 'react-i18next';
import { Pressable, View } from 'react-native';
import type { WaveSummary } from '@hand-relay/contract';
import { api, troubleOf, useMe, useNow, words } from '../state/index.ts';
import { clock, number, relative, distance } from '../text/index.ts';
import { Baton, Card, Empty, Failed, Loading, Row, Txt, useShortcuts } from '../ui/index.ts';
import { Page } from '../shell/index.ts';
import { batonOf } from './batonWords.ts';
import { DeskTabs } from './DeskTabs.tsx';

/** The baton of a wave: all it holds is released; then picked, packed, shipped. */
export function WaveBaton({ wave, scale = 1 }: { wave: WaveSummary; scale?: number }) {
  const now = useNow();
  const { state, label } = batonOf(
    {
      asked: wave.units,
      released: wave.state === 'gathering' || wave.state === 'cancelled' ? 0 : wave.units,
      picked: wave.picked,
      packed: wave.packed,
      shipped: wave.shipped,
    },
    wave.earliestDeparture,
    now,
  );
  return <Baton state={state} label={label} scale={scale} />;
}

/** Waves, the newest first. */
export function WavesView() {
  const { t } = useTranslation();
  const router = useRouter();
  const me = useMe();
  const now = useNow();
  const { data, error, refetch } = api.useWavesQuery();
  useShortcuts({ Escape: () => router.navigate('/desk') });
  return (
    <Page title={t('waves.title')} aside={<DeskTabs at="waves" />}>
      {error && <Failed text={words(troubleOf(error))} onRetry={() => void refetch()} />}
      {!data && !error && <Loading />}
      {data?.waves.length === 0 && (
        <Empty
          title={t('waves.emptyTitle')}
          text={t('waves.emptyText')}
          action={{ title: t('waves.toOrders'), onPress: () => router.navigate('/desk') }}
        />
      )}
      {data?.waves.map((w) => (
        <Pressable
          key={w.id}
          role="link"
          aria-label={t('waves.number', { number: w.number })}
          onPress={() => router.navigate(`/waves/${w.id}`)}
        >
          <Card gap={6}>
            <Row gap={16} style={{ justifyContent: 'space-between' }}>
              <Txt kind="heading">
                {t('waves.number', { number: w.number })} · {t(`waves.state.${w.state}`)}
              </Txt>
              <WaveBaton wave={w} scale={1.3} />
            </Row>
            <Row gap={16} style={{ justifyContent: 'space-between' }}>
              <Txt colour="quiet">
                {[
                  t('unit.orders', { count: w.orders }),
                  t('unit.lines', { count: w.lines }),
                  t('unit.units', { count: w.units }),
                  `${number(w.runs)} ${t('waves.runs').toLowerCase()}`,
                  distance(w.metres),
                ].join(' · ')}
              </Txt>
              <View>
                <Txt colour="quiet">
                  {w.earliestDeparture
                    ? `${clock(w.earliestDeparture, me.site.timeZone)}, ${relative(w.earliestDeparture, now)}`
                    : ''}
                </Txt>
              </View>
            </Row>
          </Card>
        </Pressable>
      ))}
    </Page>
  );
}
