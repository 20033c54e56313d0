import { useDroppable } from '@dnd-kit/core';
import { useState, type ReactNode } from 'react';
import { useTranslation } from 'react-i18next';
import { View } from 'react-native';
import Svg, { Line, Rect } from 'react-native-svg';
import type { CrewRun } from '@hand-relay/contract';
import { useMe } from '../state/index.ts';
import { duration, timeOf } from '../text/index.ts';
import { Signal, Text, useSurface } from '../ui/index.ts';
import { bayOf, blocksOf, placed, type Bay } from './bays.ts';
import { BLOCK, RunBlock } from './RunBlock.tsx';
import { along, type Axis } from './track.ts';
import { TrackRow } from './TrackRow.tsx';

/** Pixels of a run at least: its number is read, and a finger finds it. */
const LEAST = 46;
const HEIGHT = BLOCK + 8;

export interface PeopleRowsProps {
  bays: Bay[];
  /** All runs that are not done, in the order in which they are picked. */
  runs: readonly CrewRun[];
  pace: number;
  axis: Axis;
  now: number;
  wide: boolean;
  /** Leaves the column of figures free that departures have. */
  figures?: boolean;
  /** Whether a run may be given to somebody else here. */
  movable: (run: CrewRun) => boolean;
  /** Of another wave than the one that is looked at. */
  foreign?: (run: CrewRun) => boolean;
  takesOrders?: boolean;
  /** The run that is being dragged. */
  held: CrewRun | null;
  current?: string | undefined;
  onPress: (run: CrewRun) => void;
  /** Below a row. */
  under?: (bay: Bay) => ReactNode;
}

/**
 * People and queues as rows: each person's runs as long as they take, one after the other, from now or from when the
 * shift begins. Over a row that a run is dragged to stands what would change.
 */
export function PeopleRows(props: PeopleRowsProps) {
  return props.bays.map((bay) => <BayRow key={bay.key} bay={bay} {...props} />);
}

function BayRow({
  bay,
  runs,
  pace,
  axis,
  now,
  wide,
  figures = false,
  movable,
  foreign = () => false,
  takesOrders = false,
  held,
  current,
  onPress,
  under,
}: PeopleRowsProps & { bay: Bay }) {
  const { t } = useTranslation();
  const me = useMe();
  const surface = useSurface();
  const { setNodeRef, isOver } = useDroppable({ id: bay.key });
  const [width, setWidth] = useState(0);
  const own = runs.filter((r) => bayOf(r) === bay.key);
  const ends = (list: readonly CrewRun[]) => blocksOf(list, now, pace, bay.span).at(-1)?.to;
  const time = (at: number) => timeOf(new Date(at).toISOString(), me.site.timeZone, now);
  const until = ends(own);
  const with_ = held && bay.person && bayOf(held) !== bay.key ? ends([...own, held]) : undefined;
  const shift = bay.shift && t('board.shift', { span: bay.shift });
  const says = [
    own.length > 0 ? t('board.count', { count: own.length }) : t(bay.person ? 'board.free' : 'board.none'),
    bay.person && until !== undefined && t('board.until', { time: time(until) }),
  ]
    .filter(Boolean)
    .join(' · ');
  const place = (at: number) => along(axis, at, width);
  const block = (run: CrewRun, wide: number) => (
    <RunBlock
      run={run}
      width={wide}
      movable={movable(run)}
      takesOrders={takesOrders && !foreign(run)}
      foreign={foreign(run)}
      here={run.id === current}
      onPress={() => onPress(run)}
    />
  );
  return (
    <View ref={setNodeRef as never} style={isOver ? { backgroundColor: surface.chosen } : {}}>
      <TrackRow
        wide={wide}
        role="group"
        height={HEIGHT + 4}
        label={bay.title}
        right={figures ? null : undefined}
        head={
          <View style={{ paddingVertical: 4 }}>
            <Text kind="label" lines={1}>
              {bay.title}
            </Text>
            {with_ !== undefined && isOver ? (
              <Text kind="small">
                {t('board.would', {
                  time: time(with_),
                  more: duration((with_ - Math.max(until ?? 0, now)) / 1000),
                })}
              </Text>
            ) : bay.offlineSince ? (
              <Signal
                kind="caution"
                size="small"
                text={[t('board.offline', { time: timeOf(bay.offlineSince, me.site.timeZone, now) }), says].join(' · ')}
              />
            ) : (
              <Text kind="small" colour="quiet" lines={1}>
                {[says, shift].filter(Boolean).join(' · ')}
              </Text>
            )}
          </View>
        }
      >
        {bay.person === null ? (
          <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 4, paddingVertical: 4, minHeight: HEIGHT }}>
            {own.map((run) => (
              <View key={run.id}>{block(run, Math.max(LEAST, place(axis.from + 1000 * pace * run.secondsLeft)))}</View>
            ))}
          </View>
        ) : (
          <View style={{ height: HEIGHT }} onLayout={(e) => setWidth(Math.round(e.nativeEvent.layout.width))}>
            {width > 0 && (
              <Svg width={width} height={HEIGHT} aria-hidden style={{ position: 'absolute' }}>
                <Rect x={0} y={4} width={width} height={BLOCK} fill={surface.sunk} />
                {bay.span && (
                  // The shift is lighter than the rest of the day.
                  <Rect
                    x={place(bay.span.from)}
                    y={4}
                    width={Math.max(0, place(bay.span.to) - place(bay.span.from))}
                    height={BLOCK}
                    fill={surface.ground}
                    stroke={surface.line}
                  />
                )}
                {axis.ticks.map((tick) => (
                  <Line
                    key={tick}
                    x1={place(tick)}
                    x2={place(tick)}
                    y1={4}
                    y2={4 + BLOCK}
                    stroke={surface.line}
                    strokeWidth={1}
                  />
                ))}
                <Line x1={place(now)} x2={place(now)} y1={0} y2={HEIGHT} stroke={surface.ink} strokeWidth={2} />
              </Svg>
            )}
            {placed(blocksOf(own, now, pace, bay.span), place, width, LEAST).map(({ run, x, width: wide }) => (
              <View key={run.id} style={{ position: 'absolute', left: x, top: 4 }}>
                {block(run, wide)}
              </View>
            ))}
          </View>
        )}
      </TrackRow>
      {under?.(bay)}
    </View>
  );
}
