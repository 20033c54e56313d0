import { legs, type Baton as BatonState } from '@hand-relay/core/handling/progress';
import { View } from 'react-native';
import Svg, { ClipPath, Defs, G, Path, Rect } from 'react-native-svg';
import { useId } from 'react';
import { useHandoff } from './handoff.tsx';
import { isStill, MOVE_MS } from './motion.ts';
import { useSurface } from './theme.ts';

const LENGTH = 22;
const GAP = 2;
const HEIGHT = 12;
const TIP = 5;
/** A segment fills rather than jumps. */
const fills = isStill() ? {} : { transitionProperty: 'width', transitionDuration: `${MOVE_MS}ms` };
const steps = isStill() ? {} : { transitionProperty: 'transform', transitionDuration: `${MOVE_MS}ms` };
/** The notch of the leg that is worked, at the first one. */
const NOTCH = `M${LENGTH / 2 - 3} ${HEIGHT + 1.6}l4 -5l4 5Z`;

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
 * notched from below; late is outlined in caution with a triangle. When the work passes on, the notch steps over and the
 * row around it, or the baton itself, is edged for a moment.
 */
export function Baton({ state, label, scale = 1 }: { state: BatonState; label: string; scale?: number }) {
  const surface = useSurface();
  const edgeStyle = useHandoff(state.at);
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
        ...edgeStyle,
      }}
    >
      <Svg width={full * scale} height={(HEIGHT + 2) * scale} viewBox={`0 0 ${full} ${HEIGHT + 2}`} aria-hidden>
        {legs.map((leg, i) => {
          const x = i * (LENGTH + GAP) + 1;
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
            </G>
          );
        })}
        {state.at !== null && (
          <Path
            d={NOTCH}
            fill={surface.ink}
            {...({
              style: { ...steps, transform: `translateX(${legs.indexOf(state.at) * (LENGTH + GAP)}px)` },
            } as object)}
          />
        )}
        {state.late && <Path d={`M${width + 7} 1L${width + 14} ${HEIGHT + 1}H${width}Z`} fill={surface.caution} />}
      </Svg>
    </View>
  );
}
