import type { FloorPlan as Plan } from '@hand-relay/contract';
import { View } from 'react-native';
import Svg, { Circle, G, Line, Path, Polyline, Rect, Text as SvgText } from 'react-native-svg';
import { fonts, useSurface } from './theme.ts';

const DEPTH = 0.9;
const BAY = 1.1;

export interface PlanStop {
  aisle: string;
  y: number;
  label: string;
  done: boolean;
}

/**
 * The floor to scale: racks along the aisles, the walk as a line with numbered stops, and the baton where the picker
 * is. Metres become units of the drawing; y grows upwards.
 */
export function FloorPlan({
  plan,
  path,
  stops,
  at,
  label,
}: {
  plan: Plan;
  path?: [number, number][];
  stops?: PlanStop[];
  at?: { aisle: string; y: number } | undefined;
  label: string;
}) {
  const surface = useSurface();
  const x = new Map(plan.aisles.map((a) => [a.id, a.x]));
  const low = plan.crossAisles[0]!;
  const high = plan.crossAisles.at(-1)!;
  const right = Math.max(...plan.aisles.map((a) => a.x));
  const cold = new Set(plan.zones.filter((z) => z.cold).map((z) => z.code));
  const flip = (y: number) => high - y;
  const columns = new Map<string, { aisle: string; y: number; side: string; zone: string }>();
  for (const bin of plan.bins) columns.set(`${bin.aisle}/${bin.y}/${bin.side}`, bin);
  // A small floor is drawn large: lines and signs keep their size on the screen.
  const pen = Math.min(1, Math.max(0.4, (right + 6) / 42));
  const box = { left: -3, top: -2.4, width: right + 6, height: high - low + 5 };
  return (
    <View role="img" aria-label={label} style={{ width: '100%', aspectRatio: box.width / box.height }}>
      <Svg width="100%" height="100%" viewBox={`${box.left} ${box.top} ${box.width} ${box.height}`} aria-hidden>
        {plan.crossAisles.map((y) => (
          <Line
            key={y}
            x1={-1.8}
            x2={right + 1.8}
            y1={flip(y)}
            y2={flip(y)}
            stroke={surface.line}
            strokeWidth={0.12 * pen}
            strokeDasharray="0.5 0.4"
          />
        ))}
        {[...columns.values()].map((c) => (
          <Rect
            key={`${c.aisle}/${c.y}/${c.side}`}
            x={x.get(c.aisle)! + (c.side === 'left' ? -0.55 - DEPTH : 0.55)}
            y={flip(c.y) - BAY / 2}
            width={DEPTH}
            height={BAY}
            fill={surface.sunk}
            stroke={cold.has(c.zone) ? surface.cold : surface.line}
            strokeWidth={0.08 * pen}
          />
        ))}
        {plan.aisles.map((a) => (
          <SvgText
            key={a.id}
            x={a.x}
            y={flip(low) + 0.4 + 1.5 * pen}
            fontSize={1.5 * pen}
            fontFamily={fonts.heading}
            textAnchor="middle"
            fill={surface.quiet}
          >
            {a.id}
          </SvgText>
        ))}
        {path && (
          <Polyline
            points={path.map(([px, py]) => `${px},${flip(py)}`).join(' ')}
            fill="none"
            stroke={surface.ink}
            strokeWidth={0.28 * pen}
            strokeLinejoin="round"
          />
        )}
        {stops?.map((s, i) => (
          <G key={i}>
            <Circle
              cx={x.get(s.aisle)}
              cy={flip(s.y)}
              r={0.85 * pen}
              fill={s.done ? surface.done : surface.raised}
              stroke={surface.ink}
              strokeWidth={0.14 * pen}
            />
            <SvgText
              x={x.get(s.aisle)}
              y={flip(s.y) + 0.4 * pen}
              fontSize={1.05 * pen}
              fontFamily={fonts.strong}
              textAnchor="middle"
              fill={s.done ? surface.ground : surface.ink}
            >
              {s.label}
            </SvgText>
          </G>
        ))}
        {at && <Path d={`M${x.get(at.aisle)! - 1.6} ${flip(at.y) - 0.6}h2.4l.8.6-.8.6h-2.4z`} fill={surface.caution} />}
      </Svg>
    </View>
  );
}
