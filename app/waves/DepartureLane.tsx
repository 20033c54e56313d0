import { Link } from 'expo-router';
import { useTranslation } from 'react-i18next';
import { View } from 'react-native';
import type { TrackDeparture } from '@hand-relay/contract';
import type { Relay } from '@hand-relay/core/walking/labour';
import { localDate } from '@hand-relay/core/calendar';
import { useMe } from '../state/index.ts';
import { clock, duration, number, relative, timeOf } from '../text/index.ts';
import { Row, Shape, Text } from '../ui/index.ts';
import { CHANCE_SHAPE } from './LaneHead.tsx';
import { RelayBar } from './RelayBar.tsx';
import type { Axis } from './track.ts';
import { TrackRow } from './TrackRow.tsx';

/** A departure against the clock: what is left of each leg, when it ends, and what is to spare. */
export function DepartureLane({
  departure,
  relay,
  axis,
  now,
  wide,
}: {
  departure: TrackDeparture;
  relay: Relay;
  axis: Axis;
  now: number;
  wide: boolean;
}) {
  const { t } = useTranslation();
  const me = useMe();
  const { timeZone } = me.site;
  const leaves = Date.parse(departure.leavesAt);
  const says = sayRelay(departure, relay, { t, timeZone, now });
  const spare = <Spare relay={relay} left={leaves <= now} />;
  return (
    <TrackRow
      wide={wide}
      height={72}
      label={`${departure.name} ${timeOf(departure.leavesAt, timeZone, now)}: ${says}`}
      right={spare}
      head={
        <View style={{ paddingVertical: 6 }}>
          <Row gap={10} style={{ flexWrap: 'nowrap', alignItems: 'baseline' }}>
            <Text kind="large" style={{ fontVariant: ['tabular-nums'] }}>
              {clock(departure.leavesAt, timeZone)}
            </Text>
            <Text kind="strong" lines={1} style={{ flexShrink: 1 }}>
              {departure.name}
            </Text>
            {!wide && <View style={{ flex: 1, alignItems: 'flex-end' }}>{spare}</View>}
          </Row>
          <Chips departure={departure} now={now} />
        </View>
      }
    >
      <RelayBar axis={axis} now={now} leaves={leaves} relay={relay} waiting={departure.waiting.orders} label={says} />
    </TrackRow>
  );
}

/** What a departure consists of, each a link to its list: what is to release, its waves and loads, what is at the dock. */
function Chips({ departure, now }: { departure: TrackDeparture; now: number }) {
  const { t } = useTranslation();
  const me = useMe();
  const { waiting, waves, loads, packed, shipped, leavesAt } = departure;
  const until = localDate(Date.parse(leavesAt), me.site.timeZone);
  const links: { href: string; text: string }[] = [
    ...(waiting.orders > 0
      ? [
          {
            href: `/desk?show=open&departure=${encodeURIComponent(departure.name)}&until=${until}`,
            text: t('track.toRelease', { count: waiting.orders }),
          },
        ]
      : []),
    ...waves.map((w) => ({
      href: `/waves/${w.id}`,
      text:
        w.state === 'started'
          ? t('waves.number', { number: w.number })
          : `${t('waves.number', { number: w.number })}, ${t(`waves.state.${w.state}`).toLocaleLowerCase()}`,
    })),
    ...loads.map((l) => ({ href: `/desk/loads/${l.id}`, text: t('track.load', { number: l.number }) })),
    ...(packed > shipped ? [{ href: '/dock', text: t('track.atDock', { units: number(packed - shipped) }) }] : []),
  ];
  return (
    <View style={{ flexDirection: 'row', flexWrap: 'wrap', columnGap: 10, minHeight: 20 }}>
      {links.map(({ href, text }) => (
        <Link key={href} href={href as never}>
          <Text kind="small" style={{ textDecorationLine: 'underline' }}>
            {text}
          </Text>
        </Link>
      ))}
      {links.length === 0 && (
        <Text kind="small" colour="quiet">
          {relative(leavesAt, now)}
        </Text>
      )}
    </View>
  );
}

function Spare({ relay, left }: { relay: Relay; left: boolean }) {
  const { t } = useTranslation();
  const { spare, chance } = relay;
  if (chance === 'done')
    return (
      <Row gap={6} style={{ flexWrap: 'nowrap' }}>
        <Shape kind="done" size={15} />
        <Text kind="strong">{t(left ? 'track.left' : 'track.leavesComplete')}</Text>
      </Row>
    );
  const colour = ({ made: 'ink', tight: 'caution', missed: 'refused' } as const)[chance];
  return (
    <Row gap={6} style={{ flexWrap: 'nowrap', justifyContent: 'flex-end' }}>
      {chance !== 'made' && <Shape kind={CHANCE_SHAPE[chance]} size={15} />}
      <View style={{ alignItems: 'flex-end' }}>
        <Text kind="heading" colour={colour} style={{ fontSize: 20, fontVariant: ['tabular-nums'] }}>
          {spare === null ? '–' : duration(Math.abs(spare))}
        </Text>
        <Text kind="small" colour={spare === null || spare < 0 ? colour : 'quiet'}>
          {t(spare === null ? 'track.nobodyThere' : spare < 0 ? 'track.overTime' : 'track.spare')}
        </Text>
      </View>
    </Row>
  );
}

/** How a departure stands, in a sentence for who cannot see it. */
function sayRelay(
  departure: TrackDeparture,
  relay: Relay,
  { t, timeZone, now }: { t: ReturnType<typeof useTranslation>['t']; timeZone: string; now: number },
): string {
  const { spare, ends, chance, latestPick } = relay;
  if (chance === 'done') return t('track.nothingLeft');
  const time = (at: number) => timeOf(new Date(at).toISOString(), timeZone, now);
  if (ends === null || spare === null) return t('track.nobodyThere');
  return [
    t(spare < 0 ? 'track.readyOver' : 'track.readySpare', { time: time(ends), spare: duration(Math.abs(spare)) }),
    t('track.mustBePicked', { time: time(latestPick) }),
    departure.waiting.orders > 0 && `${t('track.toRelease', { count: departure.waiting.orders })}.`,
  ]
    .filter(Boolean)
    .join(' ');
}
