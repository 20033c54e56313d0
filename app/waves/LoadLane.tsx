import { useRouter } from 'expo-router';
import { useTranslation } from 'react-i18next';
import type { LoadSummary, WaveSummary } from '@hand-relay/contract';
import { useMe } from '../state/index.ts';
import { clock, number, relative } from '../text/index.ts';
import { Lane } from './Lane.tsx';
import { LaneHead } from './LaneHead.tsx';
import { LaneRow } from './LaneRow.tsx';
import { loadMarks } from './loadMarks.ts';
import type { Axis } from './track.ts';

/** A load against the clock: by when what goes on it should be picked, and when it leaves. */
export function LoadLane({
  load,
  waves,
  axis,
  now,
  wide,
}: {
  load: LoadSummary;
  waves: WaveSummary[];
  axis: Axis;
  now: number;
  wide: boolean;
}) {
  const { t } = useTranslation();
  const router = useRouter();
  const me = useMe();
  const marks = loadMarks(load, waves, now);
  const time = (at: number) => clock(new Date(at).toISOString(), me.site.timeZone);
  const says = [
    load.released < load.units
      ? t('track.loadReleased', { released: number(load.released), units: t('unit.units', { count: load.units }) })
      : marks.ends !== null &&
        t('track.ends', { time: time(marks.ends), early: time(marks.early!), late: time(marks.late!) }),
    load.leavesAt ? t('track.loadLeaves', { in: relative(load.leavesAt, now) }) : t('track.noTime'),
  ]
    .filter(Boolean)
    .join(' ');
  return (
    <LaneRow
      wide={wide}
      onOpen={() => router.navigate(`/desk/loads/${load.id}`)}
      href={`/desk/loads/${load.id}`}
      label={t('track.load', { number: load.number })}
      head={
        <LaneHead
          name={[t('track.load', { number: load.number }), load.vehicle, t('unit.orders', { count: load.orders })].join(
            ' · ',
          )}
          says={says}
          chance={marks.chance}
        />
      }
    >
      <Lane axis={axis} now={now} marks={marks} label={says} />
    </LaneRow>
  );
}
