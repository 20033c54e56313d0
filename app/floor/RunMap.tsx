import { useTranslation } from 'react-i18next';
import type { RunDetail, RunPick } from '@hand-relay/contract';
import { api } from '../state/index.ts';
import { distance } from '../text/index.ts';
import { FloorPlan, Loading, type PlanStop } from '../ui/index.ts';

/** The run drawn on the floor, the baton where the picker scanned last. */
export function RunMap({ run, picks, current }: { run: RunDetail; picks: RunPick[]; current?: RunPick }) {
  const { t } = useTranslation();
  const { data: plan } = api.useFloorPlanQuery();
  if (!plan) return <Loading rows={4} />;
  const stops: PlanStop[] = [];
  for (const p of picks) {
    const last = stops.at(-1);
    const done = p.state !== 'open';
    if (last && last.aisle === p.at.aisle && last.y === p.at.y) last.done &&= done;
    else stops.push({ ...p.at, label: String(stops.length + 1), done });
  }
  const at = [...picks].reverse().find((p) => p.state !== 'open')?.at ?? current?.at;
  return (
    <FloorPlan
      plan={plan}
      path={run.path}
      stops={stops}
      at={at}
      label={t('floor.card', {
        stops: t('unit.stops', { count: run.run.stops }),
        orders: t('unit.orders', { count: run.run.orders }),
        units: t('unit.units', { count: run.run.units }),
        walk: distance(run.run.metres),
      })}
    />
  );
}
