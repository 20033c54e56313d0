import { useMemo, useState } from 'react';
import { useTranslation } from 'react-i18next';
import { View } from 'react-native';
import type { RunDetail, RunPick } from '@hand-relay/contract';
import { api } from '../state/index.ts';
import { distance } from '../text/index.ts';
import {
  aheadUp,
  Choice,
  cutWalk,
  FloorPlan,
  Loading,
  planAround,
  stopsOf,
  wholePlan,
  type Point,
} from '../ui/index.ts';

/** What of the floor a picker sees: the run, turned so that ahead is up, or all of it as it hangs on the wall. */
type Seen = 'run' | 'floor';

/** The run drawn on the floor, the baton where the picker scanned last. */
export function RunMap({ run, picks }: { run: RunDetail; picks: RunPick[] }) {
  const { t } = useTranslation();
  const { data: plan } = api.useFloorPlanQuery();
  const [seen, setSeen] = useState<Seen>('run');
  const stops = useMemo(() => stopsOf(picks), [picks]);
  if (!plan) return <Loading rows={4} />;
  const x = new Map(plan.aisles.map((a) => [a.id, a.x]));
  const last = stops.findLastIndex((s) => s.done);
  const done = stops.slice(0, last + 1).map((s): Point => [x.get(s.aisle) ?? 0, s.y]);
  const { ahead } = cutWalk(run.path, done);
  return (
    <View style={{ flex: 1, minHeight: 0, gap: 8 }}>
      <Choice
        bare
        label={t('plan.title')}
        value={seen}
        onChange={setSeen}
        options={(['run', 'floor'] as const).map((value) => ({ value, title: t(`plan.seen.${value}`) }))}
      />
      <View style={{ flex: 1, minHeight: 0 }}>
        <FloorPlan
          plan={plan}
          path={run.path}
          stops={stops}
          view={seen === 'run' ? planAround(plan, run.path) : wholePlan(plan)}
          turn={seen === 'run' ? aheadUp(ahead) : 'north'}
          label={t('floor.card', {
            stops: t('unit.stops', { count: run.run.stops }),
            orders: t('unit.orders', { count: run.run.orders }),
            units: t('unit.units', { count: run.run.units }),
            walk: distance(run.run.metres),
          })}
        />
      </View>
    </View>
  );
}
