import { Circle, G, Polyline, Rect, Text as SvgText } from 'react-native-svg';
import { charcoal, fonts, hivis } from '../theme.ts';
import { CAPSULE, capsulesOf } from './capsules.ts';
import type { Point } from './planView.ts';
import type { Drawing } from './Signs.tsx';
import type { PlanStop } from './stopsOf.ts';

const points = (walk: readonly Point[], { at }: Drawing) => walk.map(([x, y]) => at(x, y).join(',')).join(' ');

/** The walks of several runs, thin, beside one another where they share an aisle. */
export function Walks({ paths, drawing }: { paths: readonly (readonly Point[])[]; drawing: Drawing }) {
  return (
    <G>
      {paths.map((path, i) => (
        <Polyline
          key={i}
          points={points(
            path.map(([x, y]) => [x + 0.22 * ((i % 3) - 1), y]),
            drawing,
          )}
          fill="none"
          stroke={drawing.surface.ink}
          strokeOpacity={0.4}
          strokeWidth={drawing.px(2)}
          strokeLinejoin="round"
        />
      ))}
    </G>
  );
}

/** One walk: thin and grey behind the walker, strong ahead. */
export function WalkLine({ behind, ahead, drawing }: { behind: Point[]; ahead: Point[]; drawing: Drawing }) {
  const { surface, px } = drawing;
  return (
    <G>
      <Polyline
        points={points(behind, drawing)}
        fill="none"
        stroke={surface.quiet}
        strokeWidth={px(2)}
        strokeLinejoin="round"
      />
      <Polyline
        points={points(ahead, drawing)}
        fill="none"
        stroke={surface.ink}
        strokeWidth={px(4)}
        strokeLinejoin="round"
      />
    </G>
  );
}

/** The stops: behind as small dots, ahead with their numbers, the next one largest. */
export function Stops({ stops, x, drawing }: { stops: PlanStop[]; x: ReadonlyMap<string, number>; drawing: Drawing }) {
  const { surface, px, scale, at } = drawing;
  const next = stops.find((s) => !s.done);
  const place = (s: PlanStop) => at(x.get(s.aisle) ?? 0, s.y);
  const capsules = capsulesOf(
    stops
      .filter((s) => !s.done && s !== next)
      .map((s) => {
        const [u, v] = place(s);
        return { number: s.number, x: u * scale, y: v * scale };
      }),
  );
  const disc = next && place(next);
  return (
    <G>
      {stops
        .filter((s) => s.done)
        .map((s) => {
          const [u, v] = place(s);
          return <Circle key={s.number} cx={u} cy={v} r={px(4)} fill={surface.done} />;
        })}
      {capsules.map((c) => (
        <G key={c.numbers[0]}>
          <Rect
            x={px(c.x - c.width / 2)}
            y={px(c.y - CAPSULE / 2)}
            width={px(c.width)}
            height={px(CAPSULE)}
            rx={px(CAPSULE / 2)}
            fill={surface.raised}
            stroke={surface.ink}
            strokeWidth={px(1.5)}
          />
          <SvgText
            x={px(c.x)}
            y={px(c.y + 5)}
            fontSize={px(14)}
            fontFamily={fonts.strong}
            textAnchor="middle"
            fill={surface.ink}
          >
            {c.label}
          </SvgText>
        </G>
      ))}
      {next && disc && (
        <G>
          <Circle cx={disc[0]} cy={disc[1]} r={px(15)} fill={hivis} stroke={charcoal} strokeWidth={px(2)} />
          <SvgText
            x={disc[0]}
            y={disc[1] + px(6)}
            fontSize={px(17)}
            fontFamily={fonts.strong}
            textAnchor="middle"
            fill={charcoal}
          >
            {String(next.number)}
          </SvgText>
        </G>
      )}
    </G>
  );
}
