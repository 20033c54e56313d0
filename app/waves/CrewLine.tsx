import { Link } from 'expo-router';
import { useTranslation } from 'react-i18next';
import { View } from 'react-native';
import type { Crew } from '@hand-relay/contract';
import { number } from '../text/index.ts';
import { Text } from '../ui/index.ts';

/** Who is here, and what waits: for each team on the floor, at the benches, at the dock. Each leads to its list. */
export function CrewLine({ crew }: { crew: Crew }) {
  const { t } = useTranslation();
  const queued = (team: string) => crew.queues.find((q) => q.team === team) ?? { waiting: 0, picking: 0 };
  const facts: { name: string; value: string; href: string }[] = [
    { name: t('track.here'), value: number(crew.people.filter((p) => p.here).length), href: '/waves/floor' },
    ...(crew.people.some((p) => p.shift)
      ? [
          {
            name: t('track.onShift'),
            value: number(crew.people.filter((p) => p.shift?.on).length),
            href: '/setup/roster',
          },
        ]
      : []),
    ...['', ...crew.teams].map((team) => ({
      name: team === '' ? t('track.waitingAll') : t('track.waitingTeam', { team }),
      value: t('track.queue', queued(team)),
      href: '/floor',
    })),
    { name: t('track.freeCarts'), value: number(crew.carts.reduce((n, c) => n + c.free, 0)), href: '/setup/carts' },
    {
      name: t('track.bench'),
      value: [
        t('track.carts', { count: crew.bench.waiting }),
        t('track.benchesFree', { free: crew.bench.free, all: crew.bench.all }),
      ].join(', '),
      href: '/bench',
    },
    { name: t('track.dock'), value: t('track.ready', { count: crew.dock.ready }), href: '/dock' },
  ];
  return (
    <View style={{ flexDirection: 'row', flexWrap: 'wrap', columnGap: 24, rowGap: 10 }}>
      {facts.map(({ name, value, href }) => (
        <Link key={name} href={href as never} aria-label={`${name}: ${value}`}>
          <View style={{ minHeight: 44, justifyContent: 'center' }}>
            <Text kind="small" colour="quiet">
              {name}
            </Text>
            <Text kind="strong">{value}</Text>
          </View>
        </Link>
      ))}
    </View>
  );
}
