import { useRouter } from 'expo-router';
import { useTranslation } from 'react-i18next';
import { View } from 'react-native';
import type { LoadSummary, WaveSummary } from '@hand-relay/contract';
import { useMe } from '../state/index.ts';
import { clock, number, relative } from '../text/index.ts';
import { Row, Shape, Txt } from '../ui/index.ts';
import { Lane } from './Lane.tsx';
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
      ? t('track.loadReleased', { released: number(load.released), units: number(load.units) })
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
      label={t('track.load', { number: load.number })}
      head={
        <View style={{ paddingVertical: 6, minWidth: 0 }}>
          <Txt kind="strong" lines={1}>
            {[t('track.load', { number: load.number }), load.vehicle, t('unit.orders', { count: load.orders })].join(
              ' · ',
            )}
          </Txt>
          <Row gap={6} style={{ flexWrap: 'nowrap' }}>
            {marks.chance && (
              <Shape
                kind={marks.chance === 'made' ? 'done' : marks.chance === 'tight' ? 'caution' : 'refused'}
                size={13}
              />
            )}
            <Txt kind="small" colour="quiet" style={{ flexShrink: 1 }}>
              {says}
            </Txt>
          </Row>
        </View>
      }
    >
      <Lane axis={axis} now={now} marks={marks} label={says} />
    </LaneRow>
  );
}
