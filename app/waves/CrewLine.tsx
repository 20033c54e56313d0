import { useRouter } from 'expo-router';
import { useTranslation } from 'react-i18next';
import { View } from 'react-native';
import type { Crew } from '@hand-relay/contract';
import { useMe } from '../state/index.ts';
import { number, timeOf } from '../text/index.ts';
import { Facts, Button, Row } from '../ui/index.ts';
import { Lane } from './Lane.tsx';
import { LaneHead } from './LaneHead.tsx';
import { LaneRow } from './LaneRow.tsx';
import type { Axis } from './track.ts';

/** Who is here, and what waits: for each team on the floor, at the benches, at the dock. */
export function CrewLine({ crew }: { crew: Crew }) {
  const { t } = useTranslation();
  const router = useRouter();
  const queued = (team: string) => crew.queues.find((q) => q.team === team) ?? { waiting: 0, picking: 0 };
  return (
    <Row gap={24} style={{ justifyContent: 'space-between' }}>
      <View style={{ flexShrink: 1, minWidth: 0 }}>
        <Facts
          min={80}
          facts={[
            { name: t('track.here'), value: number(crew.people.filter((p) => p.here).length) },
            ...['', ...crew.teams].flatMap((team) => [
              {
                name: team === '' ? t('track.waitingAll') : t('track.waitingTeam', { team }),
                value: t('track.queue', queued(team)),
              },
            ]),
            { name: t('track.freeCarts'), value: number(crew.carts.reduce((n, c) => n + c.free, 0)) },
            { name: t('track.bench'), value: t('track.carts', { count: crew.bench.waiting }) },
            { name: t('track.dock'), value: t('track.ready', { count: crew.dock.ready }) },
          ]}
        />
      </View>
      <Button title={t('track.floor')} icon="floor-plan" size="small" onPress={() => router.navigate('/waves/floor')} />
    </Row>
  );
}

/** What somebody has in hand, as a lane: until when it should take. */
export function PersonLane({
  person,
  axis,
  now,
  wide,
}: {
  person: Crew['people'][number];
  axis: Axis;
  now: number;
  wide: boolean;
}) {
  const { t } = useTranslation();
  const router = useRouter();
  const me = useMe();
  const says = [
    person.number && t('track.inHand', { run: person.number, done: person.picksDone, all: person.picks }),
    person.queued > 0 && t('track.queued', { count: person.queued }),
    person.ends && t('track.until', { time: timeOf(person.ends, me.site.timeZone, now) }),
  ]
    .filter(Boolean)
    .join(' · ');
  return (
    <LaneRow
      wide={wide}
      label={person.name}
      {...(person.run ? { onOpen: () => router.navigate(`/floor/runs/${person.run}`) } : {})}
      head={<LaneHead name={person.name} says={says} />}
    >
      <Lane
        axis={axis}
        now={now}
        marks={{
          ends: person.ends === null ? null : Date.parse(person.ends),
          early: null,
          late: null,
          leaves: null,
          chance: null,
        }}
        label={`${person.name}: ${says}`}
      />
    </LaneRow>
  );
}
