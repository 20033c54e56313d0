import { useRouter } from 'expo-router';
import { useState } from 'react';
import { useTranslation } from 'react-i18next';
import { Pressable, View } from 'react-native';
import type { RunSummary } from '@hand-relay/contract';
import { api, troubleOf, useMe, useNow, words } from '../state/index.ts';
import { relative, distance, timeOf } from '../text/index.ts';
import { Button, Card, Column, Empty, Failed, Icon, Loading, Row, Text, useNarrow, useSurface } from '../ui/index.ts';
import { Page } from '../shell/index.ts';
import { LookUp } from './LookUp.tsx';
import { OtherTrips } from './OtherTrips.tsx';
import { OtherWork } from './OtherWork.tsx';
import { useListScans } from './useListScans.ts';
import { useTaking } from './useTaking.tsx';

/** My runs first, then those that wait; a run is taken with a cart. */
export function RunsView() {
  const { t } = useTranslation();
  const router = useRouter();
  const { data, error, refetch } = api.useMyRunsQuery(undefined, { refetchOnMountOrArgChange: true });
  const [looking, setLooking] = useState(false);
  const taking = useTaking();
  const wrong = useListScans(data, taking.begin, !taking.asking && !looking);
  return (
    <Page title={t('floor.title')}>
      {error && <Failed text={words(troubleOf(error))} onRetry={() => void refetch()} />}
      {wrong !== null && <Failed text={wrong} />}
      {taking.wrong !== null && <Failed text={taking.wrong} />}
      {!data && !error && <Loading rows={4} height={110} />}
      {data && data.mine.length + data.waiting.length === 0 && (
        <Empty title={t('floor.emptyTitle')} text={t('floor.emptyText')} />
      )}
      {data && data.mine.length > 0 && (
        <Column gap={10}>
          <Text kind="heading" level={2}>
            {t('floor.mine')}
          </Text>
          {data.mine.map((run, i) => (
            <RunCard
              key={run.id}
              run={run}
              first={i === 0}
              title={t('floor.goOn')}
              onPress={() => router.navigate(`/floor/runs/${run.id}`)}
            />
          ))}
        </Column>
      )}
      {data && data.waiting.length > 0 && (
        <Column gap={10}>
          <Text kind="heading" level={2}>
            {t('floor.waiting')}
          </Text>
          {data.waiting.map((run, i) => (
            <RunCard
              key={run.id}
              run={run}
              first={i === 0 && data.mine.length === 0}
              title={t('floor.take')}
              onPress={() => taking.begin(run)}
            />
          ))}
        </Column>
      )}
      <OtherTrips />
      {data?.ownTrips && (
        <Button
          size="floor"
          icon="playlist-plus"
          title={t('floor.trip.gather')}
          onPress={() => router.navigate('/floor/trip')}
        />
      )}
      <Button size="floor" icon="magnify" title={t('lookUp.title')} onPress={() => setLooking(true)} />
      <OtherWork />
      {looking && <LookUp onClose={() => setLooking(false)} />}
      {taking.sheet}
    </Page>
  );
}

function RunCard({
  run,
  title,
  first,
  onPress,
}: {
  run: RunSummary;
  title: string;
  /** What to do next: the others are chosen on purpose. */
  first: boolean;
  onPress: () => void;
}) {
  const { t } = useTranslation();
  const me = useMe();
  const now = useNow();
  const surface = useSurface();
  const narrow = useNarrow();
  const share = run.picks > 0 ? run.picksDone / run.picks : 0;
  return (
    <Card gap={10}>
      <Row gap={12} style={{ flexWrap: narrow ? 'wrap' : 'nowrap', justifyContent: 'space-between' }}>
        <View style={{ flexShrink: 1 }}>
          <Text kind="title">{run.callSign}</Text>
          <Text colour="quiet">
            {run.assignedId === me.person.id ? `${t('floor.yours')} · ` : ''}
            {t('floor.run', { number: run.number })}
            {run.leavesAt ? ` · ${timeOf(run.leavesAt, me.site.timeZone, now)}, ${relative(run.leavesAt, now)}` : ''}
          </Text>
        </View>
        <Button
          kind={first ? 'act' : 'plain'}
          size="floor"
          title={title}
          label={`${title} ${run.number}`}
          onPress={onPress}
        />
      </Row>
      <Orders orders={run.orderList} />
      <Text>
        {t('floor.size', {
          stops: t('unit.stops', { count: run.stops }),
          units: t('unit.units', { count: run.units }),
          walk: distance(run.metres),
        })}
      </Text>
      {run.picksDone > 0 && (
        <View style={{ gap: 4 }}>
          <View style={{ height: 8, backgroundColor: surface.sunk, borderRadius: 2 }}>
            <View style={{ height: 8, width: `${share * 100}%`, backgroundColor: surface.done, borderRadius: 2 }} />
          </View>
          <Text kind="small" colour="quiet">
            {t('floor.picks', { done: run.picksDone, all: run.picks })}
          </Text>
        </View>
      )}
    </Card>
  );
}

/** Whose orders a run is of: the one by its number and customer, several once they are asked for. */
function Orders({ orders }: { orders: RunSummary['orderList'] }) {
  const { t } = useTranslation();
  const surface = useSurface();
  const [open, setOpen] = useState(false);
  const [only] = orders;
  if (orders.length === 1) return <Text kind="strong">{`${only!.number} · ${only!.customer}`}</Text>;
  return (
    <View style={{ gap: 4 }}>
      <Pressable
        role="button"
        aria-expanded={open}
        onPress={() => setOpen(!open)}
        style={{ flexDirection: 'row', alignItems: 'center', gap: 6, minHeight: 44, alignSelf: 'flex-start' }}
      >
        <Text kind="strong">{t('unit.orders', { count: orders.length })}</Text>
        <Icon name={open ? 'chevron-up' : 'chevron-down'} size={22} color={surface.ink} />
      </Pressable>
      {open && orders.map((o) => <Text key={o.number}>{`${o.number} · ${o.customer}`}</Text>)}
    </View>
  );
}
