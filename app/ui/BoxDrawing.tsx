import { View } from 'react-native';
import Svg, { Polygon, Polyline } from 'react-native-svg';
import { isometric, type DrawnBox } from '@hand-relay/core/stacking/drawing';
import { charcoal, hivis, useSurface } from './theme.ts';

/** What a unit of the drawing is: there already, the one that comes next, or not drawn yet. */
export type DrawnState = 'in' | 'next' | 'later';

/** Light from above: the top is lightest, the right side darkest. */
const shades = { top: 1, left: 0.8, right: 0.62 } as const;

const shaded = (colour: string, by: number) =>
  `rgb(${[1, 3, 5].map((i) => Math.round(parseInt(colour.slice(i, i + 2), 16) * by)).join()})`;
const line = (points: readonly (readonly [number, number])[]) => points.map(([x, y]) => `${x},${y}`).join(' ');

/**
 * A carton or a pallet with what lies in it, seen from one corner: what is in is grey, what comes next in the colour of
 * what to do.
 */
export function BoxDrawing({
  inner,
  boxes,
  stateOf,
  label,
  quarter = 0,
  width,
  height,
}: {
  /** Inner sides in millimetres, the third vertical. */
  inner: readonly [number, number, number];
  boxes: readonly DrawnBox[];
  stateOf: (box: number) => DrawnState;
  /** What it shows, for who does not see it. */
  label: string;
  /** Quarters of a turn. */
  quarter?: number;
  width: number;
  height: number;
}) {
  const surface = useSurface();
  const drawn = isometric(inner, boxes, quarter);
  const pad = Math.max(drawn.width, drawn.height) * 0.02;
  // Lines keep their width on screen, however large the carton is.
  const scale = Math.max((drawn.width + 2 * pad) / width, (drawn.height + 2 * pad) / height);
  const edge = { stroke: surface.quiet, strokeWidth: 1.5 * scale, strokeLinejoin: 'round' } as const;
  const solid = { in: surface.name === 'floor' ? '#8A949A' : '#B9BEC0', next: hivis };
  return (
    <View role="img" aria-label={label} style={{ width, height }}>
      <Svg
        width={width}
        height={height}
        viewBox={`${-pad} ${-pad} ${drawn.width + 2 * pad} ${drawn.height + 2 * pad}`}
        aria-hidden
      >
        <Polygon points={line(drawn.floor)} fill={surface.sunk} {...edge} />
        {drawn.walls.map((wall, i) => (
          <Polygon key={i} points={line(wall)} fill={surface.sunk} {...edge} />
        ))}
        {drawn.faces.map((f) => {
          const state = stateOf(f.box);
          if (state === 'later') return null;
          return (
            <Polygon
              key={`${f.box}${f.side}`}
              points={line(f.points)}
              fill={shaded(solid[state], shades[f.side])}
              stroke={charcoal}
              strokeWidth={1.2 * scale}
              strokeLinejoin="round"
            />
          );
        })}
        {drawn.front.map((edges, i) => (
          <Polyline key={i} points={line(edges)} fill="none" {...edge} strokeDasharray={[5 * scale, 4 * scale]} />
        ))}
      </Svg>
    </View>
  );
}
