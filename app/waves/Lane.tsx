import { useTranslation } from 'react-i18next';
import { G, Line, Path, Rect, Text as SvgText } from 'react-native-svg';
import { useMe } from '../state/index.ts';
import { clock } from '../text/index.ts';
import { useSurface } from '../ui/index.ts';
import { Drawn } from './Drawn.tsx';
import { FinishLine } from './FinishLine.tsx';
import { along, type Axis } from './track.ts';

export interface LaneMarks {
  /** By when it should be done, with the range in which it ends in four cases of five. */
  ends: number | null;
  early: number | null;
  late: number | null;
  leaves: number | null;
  chance: 'made' | 'tight' | 'missed' | null;
}

const HEIGHT = 46;
const HEAD = 22;

/** Pixels that the label of a tick takes with its gap. */
const LABEL = 44;

/** The clock above the lanes. */
export function Clock({ axis, now }: { axis: Axis; now: number }) {
  const surface = useSurface();
  const { t } = useTranslation();
  const me = useMe();
  const time = (at: number) => clock(new Date(at).toISOString(), me.site.timeZone);
  return (
    <Drawn label={t('track.from', { from: time(axis.from), to: time(axis.to) })} height={HEAD}>
      {(width) => {
        const here = along(axis, now, width);
        // On a phone there is room for every second or third of them.
        const apart =
          axis.ticks.length > 1 ? along(axis, axis.ticks[1]!, width) - along(axis, axis.ticks[0]!, width) : width;
        const every = Math.max(1, Math.ceil(LABEL / apart));
        return (
          <G>
            {axis.ticks.map((at, i) => {
              if (i % every !== 0) return null;
              const x = along(axis, at, width);
              if (x < 16 || x > width - 16 || Math.abs(x - here) < 40) return null;
              return (
                <SvgText
                  key={at}
                  x={x}
                  y={15}
                  fontSize={12}
                  fontFamily="Barlow_500Medium"
                  textAnchor="middle"
                  fill={surface.quiet}
                >
                  {time(at)}
                </SvgText>
              );
            })}
            <SvgText
              x={Math.max(18, here)}
              y={15}
              fontSize={13}
              fontFamily="Barlow_600SemiBold"
              textAnchor="middle"
              fill={surface.ink}
            >
              {time(now)}
            </SvgText>
          </G>
        );
      }}
    </Drawn>
  );
}

/**
 * One lane of the track: what is left of the work as a bar from now on, the baton where it should end, the range about
 * it, and the departure as a finish line.
 */
export function Lane({ axis, now, marks, label }: { axis: Axis; now: number; marks: LaneMarks; label: string }) {
  const surface = useSurface();
  const middle = HEIGHT / 2;
  const colour =
    marks.chance === 'missed' ? surface.refused : marks.chance === 'tight' ? surface.caution : surface.done;
  return (
    <Drawn label={label} height={HEIGHT}>
      {(width) => {
        const at = (instant: number) => along(axis, instant, width);
        const here = at(now);
        return (
          <G>
            <Rect x={0} y={middle - 9} width={width} height={18} fill={surface.sunk} />
            {axis.ticks.map((tick) => (
              <Line
                key={tick}
                x1={at(tick)}
                x2={at(tick)}
                y1={middle - 9}
                y2={middle + 9}
                stroke={surface.line}
                strokeWidth={1}
              />
            ))}
            {marks.early !== null && marks.late !== null && (
              <Rect
                x={at(marks.early)}
                y={middle - 9}
                width={Math.max(2, at(marks.late) - at(marks.early))}
                height={18}
                fill={colour}
                opacity={0.28}
              />
            )}
            {marks.ends !== null && (
              <>
                <Rect x={here} y={middle - 4} width={Math.max(0, at(marks.ends) - here)} height={8} fill={colour} />
                <Path d={`M${at(marks.ends) - 12} ${middle - 8}h12l8 8-8 8h-12z`} fill={colour} />
              </>
            )}
            <Line x1={here} x2={here} y1={2} y2={HEIGHT - 2} stroke={surface.ink} strokeWidth={2} />
            {marks.leaves !== null && <FinishLine x={at(marks.leaves)} height={HEIGHT} />}
          </G>
        );
      }}
    </Drawn>
  );
}
