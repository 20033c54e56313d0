import { useGlobalSearchParams, useRouter } from 'expo-router';
import { useState } from 'react';
import { useTranslation } from 'react-i18next';
import { useWindowDimensions, View } from 'react-native';
import type { LoadSummary } from '@hand-relay/contract';
import { localDate } from '@hand-relay/core/calendar';
import { api, troubleOf, useMay, useMe, useNow, words } from '../state/index.ts';
import { clock, dayName } from '../text/index.ts';
import { Card, Choice, Empty, Failed, Button, LinkBox, Loading, Row, Text, useShortcuts, WIDE } from '../ui/index.ts';
import { DeskTabs, ListExport } from '../desk/index.ts';
import { Page } from '../shell/index.ts';
import { LoadBars } from './LoadBars.tsx';
import { LoadFloor } from './LoadFloor.tsx';
import { LoadStages } from './LoadStages.tsx';
import { PlanSheet } from './PlanSheet.tsx';

/** Planned loads by their departure, with how full and how far each is; or those that left, the newest first. */
export function LoadsView() {
  const { t } = useTranslation();
  const router = useRouter();
  const wide = useWindowDimensions().width >= WIDE;
  const mayPlan = useMay('orders.release');
  const state = useGlobalSearchParams<{ left?: string }>().left === '1' ? 'left' : 'planned';
  const { currentData: data, error, refetch } = api.useLoadsQuery({ state });
  const [planning, setPlanning] = useState(false);
  useShortcuts({ Escape: () => router.navigate('/desk') }, !planning);
  const open = (id: string) => router.navigate(`/desk/loads/${id}`);
  const widths = new Map(data?.vehicles.map((v) => [v.name, v.widthMm]));
  return (
    <Page
      title={t('loads.title')}
      aside={<DeskTabs at="loads" />}
      foot={
        mayPlan && (
          <Row style={{ justifyContent: 'flex-end' }}>
            <Button kind="act" title={t('loads.plan')} onPress={() => setPlanning(true)} />
          </Row>
        )
      }
    >
      <Choice
        bare
        label={t('loads.title')}
        value={state}
        onChange={(value) => router.setParams({ left: value === 'left' ? '1' : undefined })}
        options={[
          { value: 'planned', title: t('loads.state.planned') },
          { value: 'left', title: t('loads.state.left') },
        ]}
      />
      {error && <Failed text={words(troubleOf(error))} onRetry={() => void refetch()} />}
      {!data && !error && <Loading rows={3} height={120} />}
      {data?.loads.length === 0 && (
        <Empty
          title={t(state === 'left' ? 'loads.noneLeft' : 'loads.emptyTitle')}
          text={t(state === 'left' ? 'loads.noneLeftText' : 'loads.emptyText')}
        />
      )}
      <View
        role="list"
        aria-label={t('loads.title')}
        style={wide ? { flexDirection: 'row', flexWrap: 'wrap', gap: 16 } : { gap: 16 }}
      >
        {data?.loads.map((load) => (
          <View key={load.id} role="listitem" style={wide ? { width: 420 } : {}}>
            <LoadCard load={load} widthMm={widths.get(load.vehicle) ?? 2400} onOpen={() => open(load.id)} />
          </View>
        ))}
      </View>
      {data && data.loads.length > 0 && (
        <ListExport
          name="loads"
          rows={() =>
            data.loads.map(({ number, vehicle, departure, leavesAt, door, orders, units, endedAt, fill }) => ({
              load: number,
              vehicle,
              departure: departure ?? '',
              leaves_at: leavesAt ?? '',
              door: door ?? '',
              orders,
              units,
              left_at: endedAt ?? '',
              weight_g: fill.weightG,
              volume_cm3: Math.round(fill.volumeCm3),
              floor_places: fill.places,
              of_floor_places: fill.most.places,
            }))
          }
        />
      )}
      {planning && <PlanSheet onClose={() => setPlanning(false)} onPlanned={(load) => open(load.id)} />}
    </Page>
  );
}

function LoadCard({ load, widthMm, onOpen }: { load: LoadSummary; widthMm: number; onOpen: () => void }) {
  const { t } = useTranslation();
  return (
    <LinkBox href={`/desk/loads/${load.id}`} label={t('loads.number', { number: load.number })} onOpen={onOpen}>
      <Card gap={10}>
        <View style={{ flexDirection: 'row', justifyContent: 'space-between', gap: 12 }}>
          <Text kind="heading">{t('loads.number', { number: load.number })}</Text>
          <Text colour="quiet">{load.vehicle}</Text>
        </View>
        <WhenAndWhere load={load} />
        <LoadStages load={load} />
        <LoadFloor widthMm={widthMm} places={load.fill.most.places} taken={load.fill.places} />
        <LoadBars fill={load.fill} />
      </Card>
    </LinkBox>
  );
}

/** Departure, door and what is in it, in one line. */
export function WhenAndWhere({ load }: { load: LoadSummary }) {
  const { t } = useTranslation();
  const me = useMe();
  const now = useNow();
  const zone = me.site.timeZone;
  const when = load.leavesAt
    ? `${dayName(localDate(Date.parse(load.leavesAt), zone), zone, now)} ${clock(load.leavesAt, zone)}`
    : '';
  return (
    <Text>
      {[
        [when, load.departure ?? t('orders.noDeparture')].filter(Boolean).join(' '),
        load.door,
        t('unit.orders', { count: load.orders }),
        t('unit.units', { count: load.units }),
        load.stops > 1 && t('unit.stops', { count: load.stops }),
        load.note,
      ]
        .filter(Boolean)
        .join(' · ')}
    </Text>
  );
}
