import { legs, type Baton as BatonState } from '@hand-relay/core/progress';
import { View } from 'react-native';
import Svg, { ClipPath, Defs, G, Path, Rect } from 'react-native-svg';
import { useEffect, useId, useRef, useState } from 'react';
import { isStill, MOVE_MS } from './motion.ts';
import { hivis, useSurface } from './theme.ts';

const LENGTH = 22;
const GAP = 2;
const HEIGHT = 12;
const TIP = 5;
/** A segment fills rather than jumps. */
const fills = isStill() ? {} : { transitionProperty: 'width', transitionDuration: `${MOVE_MS}ms` };

/** Milliseconds for which a handoff is edged. */
const EDGED_MS = 600;

/** Whether the work has just passed to another leg while somebody was looking. */
function useHandedOver(at: BatonState['at']): boolean {
  const before = useRef(at);
  const [edged, setEdged] = useState(false);
  useEffect(() => {
    if (before.current === at) return;
    before.current = at;
    if (isStill()) return;
    setEdged(true);
    const over = setTimeout(() => setEdged(false), EDGED_MS);
    return () => clearTimeout(over);
  }, [at]);
  return edged;
}

/** Outline of one segment; the last one ends in a tip, as the baton does. */
function outline(i: number): string {
  const x = i * (LENGTH + GAP) + 1;
  const y = 1;
  const end = x + LENGTH;
  const low = y + HEIGHT;
  if (i < 3) return `M${x} ${y}H${end}V${low}H${x}Z`;
  return `M${x} ${y}H${end - TIP}L${end} ${y + HEIGHT / 2}L${end - TIP} ${low}H${x}Z`;
}

/**
 * The baton: four segments for Desk, Floor, Bench and Dock, each filled as its leg is worked; the one being worked is
 * notched from below; late is outlined in caution with a triangle. When the work passes on, it is edged for a moment.
 */
export function Baton({ state, label, scale = 1 }: { state: BatonState; label: string; scale?: number }) {
  const surface = useSurface();
  const edged = useHandedOver(state.at);
  const id = useId().replace(/[^a-z0-9]/gi, '');
  const width = 4 * LENGTH + 3 * GAP + 2;
  const full = state.late ? width + 16 : width;
  return (
    <View
      role="img"
      aria-label={label}
      style={{
        width: full * scale,
        height: (HEIGHT + 2) * scale,
        ...(edged ? { outlineStyle: 'solid', outlineWidth: 3, outlineOffset: 3, outlineColor: hivis } : {}),
      }}
    >
      <Svg width={full * scale} height={(HEIGHT + 2) * scale} viewBox={`0 0 ${full} ${HEIGHT + 2}`} aria-hidden>
        {legs.map((leg, i) => {
          const x = i * (LENGTH + GAP) + 1;
          const middle = x + LENGTH / 2;
          return (
            <G key={leg}>
              <Defs>
                <ClipPath id={`${id}${i}`}>
                  <Path d={outline(i)} />
                </ClipPath>
              </Defs>
              <Path d={outline(i)} fill={surface.sunk} />
              <Rect
                x={x}
                y={1}
                width={LENGTH * state.filled[leg]}
                height={HEIGHT}
                fill={surface.done}
                {...({ style: fills } as object)}
                clipPath={`url(#${id}${i})`}
              />
              <Path
                d={outline(i)}
                fill="none"
                stroke={state.late ? surface.caution : surface.quiet}
                strokeWidth={state.late ? 1.5 : 1}
              />
              {state.at === leg && (
                <Path
                  d={`M${middle - 4} ${HEIGHT + 1.6}L${middle} ${HEIGHT - 3.4}L${middle + 4} ${HEIGHT + 1.6}Z`}
                  fill={surface.ink}
                />
              )}
            </G>
          );
        })}
        {state.late && <Path d={`M${width + 7} 1L${width + 14} ${HEIGHT + 1}H${width}Z`} fill={surface.caution} />}
      </Svg>
    </View>
  );
}
