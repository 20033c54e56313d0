import type { FloorPlan as Plan } from '@hand-relay/contract';
import { useMemo } from 'react';
import { View } from 'react-native';
import Svg, { Circle, Defs, G, Line, Path, Pattern, Polyline, Rect, Text as SvgText } from 'react-native-svg';
import { fonts, useSurface, type Surface } from './theme.ts';

const DEPTH = 0.9;
const BAY = 1.1;

export interface PlanStop {
  aisle: string;
  y: number;
  label: string;
  done: boolean;
}

/** Somebody on the floor, where they scanned last. */
export interface PlanPerson {
  name: string;
  aisle: string;
  y: number;
}

/** A part of the floor in its own metres; y grows upwards. */
export interface PlanView {
  left: number;
  bottom: number;
  width: number;
  height: number;
}

/** The whole floor with a margin for its signs. */
export function wholePlan(plan: Pick<Plan, 'aisles' | 'crossAisles' | 'places'>): PlanView {
  const xs = [...plan.aisles, ...plan.places].map((a) => a.x);
  const ys = plan.places.map((p) => p.y);
  const [left, right] = [Math.min(0, ...xs), Math.max(0, ...xs)];
  const low = Math.min(plan.crossAisles[0]!, ...ys);
  const high = Math.max(plan.crossAisles.at(-1)!, ...ys);
  return { left: left - 3, bottom: low - 2.6, width: right - left + 6, height: high - low + 5 };
}

export interface FloorPlanProps {
  plan: Plan;
  path?: [number, number][];
  /** Ways of several runs, drawn thin. */
  paths?: [number, number][][];
  stops?: PlanStop[];
  at?: { aisle: string; y: number } | undefined;
  people?: PlanPerson[];
  /** Whether bins are filled by what is still to be picked there. */
  heat?: boolean;
  /** Bins that a search found. */
  found?: ReadonlySet<string>;
  /** Bins that are not there yet, drawn filled. */
  fresh?: ReadonlySet<string>;
  /** A stretch that is being marked. */
  marking?: { aisle: string; from: number; to: number } | null;
  view?: PlanView;
  label: string;
}

/**
 * The floor to scale: racks along the aisles, what is blocked in hazard stripes, one-way aisles with arrows, walks as
 * lines with numbered stops, and the baton where somebody scanned last.
 */
export function FloorPlan({
  plan,
  path,
  paths,
  stops,
  at,
  people,
  heat = false,
  found,
  fresh,
  marking,
  view,
  label,
}: FloorPlanProps) {
  const surface = useSurface();
  const x = useMemo(() => new Map(plan.aisles.map((a) => [a.id, a.x])), [plan]);
  const whole = wholePlan(plan);
  const shown = view ?? whole;
  // Signs and lines keep their size on the screen, however much of the floor is seen.
  const pen = Math.min(1, Math.max(0.25, shown.width / 42));
  const top = shown.bottom + shown.height;
  const flip = (y: number) => top - y;
  const low = plan.crossAisles[0]!;
  const high = plan.crossAisles.at(-1)!;
  const [leftmost, rightmost] = [whole.left + 1.2, whole.left + whole.width - 1.2];
  const racks = useMemo(
    () => <Racks {...{ plan, x, heat, found, fresh, surface, pen }} />,
    [plan, x, heat, found, fresh, surface, pen],
  );
  return (
    <View
      role="img"
      aria-label={label}
      style={view ? { flex: 1 } : { width: '100%', aspectRatio: shown.width / shown.height }}
    >
      <Svg width="100%" height="100%" viewBox={`${shown.left} 0 ${shown.width} ${shown.height}`} aria-hidden>
        <Defs>
          <Pattern id="hazard" width={1.2} height={1.2} patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
            <Rect width={1.2} height={1.2} fill={surface.caution} />
            <Rect width={0.6} height={1.2} fill={surface.name === 'floor' ? '#15191B' : '#1E2326'} />
          </Pattern>
        </Defs>
        {plan.crossAisles.map((y) => (
          <Line
            key={y}
            x1={leftmost}
            x2={rightmost}
            y1={flip(y)}
            y2={flip(y)}
            stroke={surface.line}
            strokeWidth={0.12 * pen}
            strokeDasharray="0.5 0.4"
          />
        ))}
        <G transform={`translate(0 ${top}) scale(1 -1)`}>{racks}</G>
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
        {plan.aisles.map((a) =>
          a.oneWay ? (
            <G key={`${a.id} way`}>
              {plan.crossAisles.slice(1).map((y, i) => {
                const middle = flip((y + plan.crossAisles[i]!) / 2);
                const tip = a.oneWay === 'up' ? -1 : 1;
                return (
                  <Path
                    key={y}
                    d={`M${a.x} ${middle + 1.3 * tip * pen}l${0.6 * pen} ${-1.2 * tip * pen}h${-0.35 * pen}v${-1.4 * tip * pen}h${-0.5 * pen}v${1.4 * tip * pen}h${-0.35 * pen}z`}
                    fill={surface.ink}
                  />
                );
              })}
            </G>
          ) : null,
        )}
        {plan.aisles.map((a) => (
          <G key={`${a.id} ends`}>
            {a.from !== undefined && a.from > low && (
              <Rect x={a.x - 0.5} y={flip(a.from)} width={1} height={a.from - low} fill={surface.line} />
            )}
            {a.to !== undefined && a.to < high && (
              <Rect x={a.x - 0.5} y={flip(high)} width={1} height={high - a.to} fill={surface.line} />
            )}
          </G>
        ))}
        {[...plan.blocked, ...(marking ? [marking] : [])].map((b, i) =>
          'aisle' in b ? (
            <Rect
              key={i}
              x={x.get(b.aisle)! - 0.55}
              y={flip(b.to)}
              width={1.1}
              height={Math.max(0.3, b.to - b.from)}
              fill="url(#hazard)"
            />
          ) : (
            <Rect
              key={i}
              x={b.from}
              y={flip(b.crossAisle) - 0.55}
              width={b.to - b.from}
              height={1.1}
              fill="url(#hazard)"
            />
          ),
        )}
        {paths?.map((p, i) => (
          <Polyline
            key={i}
            points={p.map(([px, py]) => `${px + 0.22 * ((i % 3) - 1)},${flip(py)}`).join(' ')}
            fill="none"
            stroke={surface.ink}
            strokeOpacity={0.35}
            strokeWidth={0.2 * pen}
            strokeLinejoin="round"
          />
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
        {plan.places.map((p) => (
          <Spot key={p.code} place={p} flip={flip} pen={pen} surface={surface} />
        ))}
        <Place at={plan.start} x={x} flip={flip} pen={pen} surface={surface} solid />
        {plan.finish && <Place at={plan.finish} x={x} flip={flip} pen={pen} surface={surface} />}
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
        {people?.map((p) => (
          <G key={p.name}>
            <Path
              d={`M${x.get(p.aisle)! - 1.6 * pen} ${flip(p.y) - 0.6 * pen}h${2.4 * pen}l${0.8 * pen} ${0.6 * pen}l${-0.8 * pen} ${0.6 * pen}h${-2.4 * pen}z`}
              fill={surface.caution}
            />
            <SvgText
              x={x.get(p.aisle)! + 2 * pen}
              y={flip(p.y) + 0.45 * pen}
              fontSize={1.2 * pen}
              fontFamily={fonts.strong}
              fill={surface.ink}
            >
              {p.name}
            </SvgText>
          </G>
        ))}
      </Svg>
    </View>
  );
}

/** A lane as a field painted on the floor, a bench as a table, a door as a gap in the wall; each with its code. */
function Spot({
  place: { code, kind, x, y },
  flip,
  pen,
  surface,
}: {
  place: Plan['places'][number];
  flip: (y: number) => number;
  pen: number;
  surface: Surface;
}) {
  const [w, h] = kind === 'door' ? [4, 0.5] : kind === 'bench' ? [2.6, 0.9] : [3.4, 1.6];
  return (
    <G>
      <Rect
        x={x - w / 2}
        y={flip(y) - h / 2}
        width={w}
        height={h}
        fill={kind === 'lane' ? 'none' : kind === 'bench' ? surface.sunk : surface.ink}
        stroke={kind === 'door' ? surface.ink : surface.quiet}
        strokeWidth={0.12 * pen}
        {...(kind === 'lane' ? { strokeDasharray: '0.6 0.3' } : {})}
      />
      <SvgText
        x={x}
        y={flip(y) + (kind === 'lane' ? 0.32 * pen : h / 2 + 1.05 * pen)}
        fontSize={0.9 * pen}
        fontFamily={fonts.heading}
        textAnchor="middle"
        fill={surface.quiet}
      >
        {code}
      </SvgText>
    </G>
  );
}

function Place({
  at,
  x,
  flip,
  pen,
  surface,
  solid = false,
}: {
  at: { aisle: string; y: number };
  x: ReadonlyMap<string, number>;
  flip: (y: number) => number;
  pen: number;
  surface: Surface;
  solid?: boolean;
}) {
  const [cx, cy] = [x.get(at.aisle) ?? 0, flip(at.y)];
  const r = 0.6 * pen;
  return (
    <Rect
      x={cx - r}
      y={cy - r}
      width={2 * r}
      height={2 * r}
      fill={solid ? surface.ink : surface.raised}
      stroke={surface.ink}
      strokeWidth={0.16 * pen}
    />
  );
}

interface RacksProps {
  plan: Plan;
  x: ReadonlyMap<string, number>;
  heat: boolean;
  found: ReadonlySet<string> | undefined;
  fresh: ReadonlySet<string> | undefined;
  surface: Surface;
  pen: number;
}

/** Racks, one for each place along each side of an aisle, the levels over one another as one. */
function Racks({ plan, x, heat, found, fresh, surface, pen }: RacksProps) {
  const cold = new Set(plan.zones.filter((z) => z.cold).map((z) => z.code));
  const columns = new Map<
    string,
    { aisle: string; y: number; side: string; zone: string; open: number; found: boolean; fresh: boolean }
  >();
  for (const bin of plan.bins) {
    const key = `${bin.aisle}/${bin.y}/${bin.side}`;
    const known = columns.get(key);
    const open = (known?.open ?? 0) + (bin.open ?? 0);
    columns.set(key, {
      ...bin,
      open,
      found: (known?.found ?? false) || (found?.has(bin.bin) ?? false),
      fresh: fresh?.has(bin.bin) ?? false,
    });
  }
  const most = Math.max(1, ...[...columns.values()].map((c) => c.open));
  return (
    <>
      {[...columns].map(([key, c]) => (
        <Rect
          key={key}
          x={x.get(c.aisle)! + (c.side === 'left' ? -0.55 - DEPTH : 0.55)}
          y={c.y - BAY / 2}
          width={DEPTH}
          height={BAY}
          fill={c.fresh || (heat && c.open > 0) ? surface.ink : surface.sunk}
          fillOpacity={c.fresh ? 0.55 : !heat || c.open === 0 ? 1 : 0.15 + 0.75 * Math.sqrt(c.open / most)}
          stroke={c.found ? surface.caution : cold.has(c.zone) ? surface.cold : surface.line}
          strokeWidth={(c.found ? 0.36 : 0.08) * pen}
        />
      ))}
    </>
  );
}
