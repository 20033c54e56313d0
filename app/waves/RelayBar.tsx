import { useId } from 'react';
import { useTranslation } from 'react-i18next';
import { ClipPath, Defs, G, Line, Path, Pattern, Rect, Text as SvgText } from 'react-native-svg';
import type { Relay } from '@hand-relay/core/walking/labour';
import { useMe } from '../state/index.ts';
import { clock } from '../text/index.ts';
import { useSurface } from '../ui/index.ts';
import { Drawn } from './Drawn.tsx';
import { FinishLine } from './FinishLine.tsx';
import { along, type Axis } from './track.ts';

const HEIGHT = 56;
const TOP = 17;
const BAR = 22;
const GAP = 2;
const TIP = 7;
/** Pixels that the label of the latest pick takes. */
const PICK_BY = 78;
/** Pixels that a letter of a label takes, about. */
const LETTER = 6.6;

/**
 * The way that is left to a departure: the legs with work left, end to end from now on, the last one tipped like the
 * baton; by when all must be picked; the finish line, and between both what is to spare, hatched. What is not released
 * yet is hollow. What reaches beyond the finish line is in the colour of what fails.
 */
export function RelayBar({
  axis,
  now,
  leaves,
  relay,
  waiting,
  label,
}: {
  axis: Axis;
  now: number;
  leaves: number;
  relay: Relay;
  /** Orders that are not released yet. */
  waiting: number;
  label: string;
}) {
  const { t } = useTranslation();
  const me = useMe();
  const surface = useSurface();
  const id = useId().replace(/[^a-z0-9]/gi, '');
  return (
    <Drawn label={label} height={HEIGHT}>
      {(width) => {
        const at = (instant: number) => along(axis, instant, width);
        const here = at(now);
        // One that leaves later than the track shows has its clock in the head alone.
        const shown = leaves <= axis.to;
        const finish = shown ? at(leaves) : width;
        const { stretches, ends, latestPick } = relay;
        // Its label keeps clear of the finish line.
        const before = at(latestPick) + PICK_BY > finish;
        const picking = stretches.some((s) => s.leg === 'desk' || s.leg === 'floor');
        return (
          <G>
            <Defs>
              <Pattern id={`${id}h`} patternUnits="userSpaceOnUse" width={8} height={8} patternTransform="rotate(45)">
                <Line x1={0} x2={0} y1={0} y2={8} stroke={surface.line} strokeWidth={3} />
              </Pattern>
              <ClipPath id={`${id}a`}>
                <Rect x={0} y={0} width={finish} height={HEIGHT} />
              </ClipPath>
              <ClipPath id={`${id}b`}>
                <Rect x={finish} y={0} width={Math.max(0, width - finish)} height={HEIGHT} />
              </ClipPath>
            </Defs>
            <Rect x={0} y={TOP} width={width} height={BAR} fill={surface.sunk} />
            {axis.ticks.map((tick) => (
              <Line
                key={tick}
                x1={at(tick)}
                x2={at(tick)}
                y1={TOP}
                y2={TOP + BAR}
                stroke={surface.line}
                strokeWidth={1}
              />
            ))}
            {ends !== null && leaves > ends && (
              <Rect
                x={at(Math.max(ends, now))}
                y={TOP}
                width={Math.max(0, finish - at(Math.max(ends, now)))}
                height={BAR}
                fill={`url(#${id}h)`}
              />
            )}
            {stretches.map(({ leg, from, to }, i) => {
              const last = i === stretches.length - 1;
              const x = at(from) + (i === 0 ? 0 : GAP / 2);
              const long = Math.max(2, at(to) - x - (last ? 0 : GAP / 2));
              const hollow = leg === 'desk';
              const shape = last && !hollow ? tipped(x, long) : `M${x} ${TOP}h${long}v${BAR}h${-long}Z`;
              const says = hollow ? `${t('place.desk')} ${waiting}` : t(`place.${leg}`);
              return (
                <G key={leg}>
                  {(
                    [
                      ['a', surface.done],
                      ['b', surface.refused],
                    ] as const
                  ).map(([side, colour]) => (
                    <Path
                      key={side}
                      d={
                        hollow
                          ? `M${x + 1} ${TOP + 1}h${Math.max(1, long - 2)}v${BAR - 2}h${-Math.max(1, long - 2)}Z`
                          : shape
                      }
                      clipPath={`url(#${id}${side})`}
                      fill={hollow ? surface.ground : colour}
                      {...(hollow ? { stroke: colour, strokeWidth: 2, strokeDasharray: '4 3' } : {})}
                    />
                  ))}
                  {long > says.length * LETTER + 12 && (
                    <SvgText
                      x={x + 7}
                      y={TOP + 15}
                      fontSize={12}
                      fontFamily="Barlow_600SemiBold"
                      fill={hollow ? surface.ink : surface.ground}
                    >
                      {says}
                    </SvgText>
                  )}
                </G>
              );
            })}
            {picking && latestPick > axis.from && latestPick < axis.to && (
              <G>
                <Line
                  x1={at(latestPick)}
                  x2={at(latestPick)}
                  y1={TOP - 4}
                  y2={TOP + BAR + 4}
                  stroke={surface.caution}
                  strokeWidth={2}
                />
                {(!before || at(latestPick) >= PICK_BY) && (
                  <SvgText
                    x={at(latestPick) + (before ? -4 : 4)}
                    y={TOP + BAR + 13}
                    fontSize={11.5}
                    textAnchor={before ? 'end' : 'start'}
                    fontFamily="Barlow_500Medium"
                    fill={surface.caution}
                  >
                    {t('track.pickBy', { time: clock(new Date(latestPick).toISOString(), me.site.timeZone) })}
                  </SvgText>
                )}
              </G>
            )}
            <Line x1={here} x2={here} y1={2} y2={HEIGHT - 2} stroke={surface.ink} strokeWidth={2} />
            {shown && leaves >= axis.from && <FinishLine x={finish} height={HEIGHT} />}
          </G>
        );
      }}
    </Drawn>
  );
}

/** A stretch that ends in a tip, as the baton does. */
function tipped(x: number, long: number): string {
  const tip = Math.min(TIP, long / 2);
  return `M${x} ${TOP}h${long - tip}l${tip} ${BAR / 2}l${-tip} ${BAR / 2}h${tip - long}Z`;
}
