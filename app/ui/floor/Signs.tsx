import type { FloorPlan as Plan } from '@hand-relay/contract';
import { G, Line, Path, Rect, Text as SvgText } from 'react-native-svg';
import { fonts, type Surface } from '../theme.ts';
import { turnedTo, wholePlan, type PlanView, type Turn } from './planView.ts';

/** How the floor is drawn now: which way is up, how large, and what of it is seen. */
export interface Drawing {
  turn: Turn;
  /** Pixels for each metre. */
  scale: number;
  view: PlanView;
  surface: Surface;
  /** A point of the floor on the drawing. */
  at: (x: number, y: number) => [u: number, v: number];
  /** Metres that so many pixels are. */
  px: (pixels: number) => number;
}

export const drawingOf = (turn: Turn, scale: number, view: PlanView, surface: Surface): Drawing => ({
  turn,
  scale,
  view,
  surface,
  at: turnedTo[turn],
  px: (pixels) => pixels / scale,
});

/** Pixels between two signs of aisles, below which only some of them are written. */
const APART = 22;

/** The letter of each aisle at one end of it, or at the edge of what is seen of it. */
export function AisleSigns({ plan, drawing }: { plan: Plan; drawing: Drawing }) {
  const { at, px, scale, view, surface } = drawing;
  const xs = plan.aisles.map((a) => a.x).sort((a, b) => a - b);
  const gap = Math.min(
    ...xs
      .slice(1)
      .map((x, i) => x - xs[i]!)
      .filter((d) => d > 0),
  );
  const each = Number.isFinite(gap) ? Math.max(1, Math.ceil(APART / (gap * scale))) : 1;
  const low = plan.crossAisles[0]!;
  const high = plan.crossAisles.at(-1)!;
  // At their feet, or at their heads where a lane is painted there.
  const crowded = plan.places.some((p) => Math.abs(p.y - (low - px(22))) < px(20));
  const y = Math.min(
    Math.max(crowded ? high + px(14) : low - px(22), view.bottom + px(12)),
    view.bottom + view.height - px(12),
  );
  return (
    <G>
      {plan.aisles
        .filter((_, i) => i % each === 0)
        .map((a) => {
          const [u, v] = at(a.x, y);
          return (
            <SvgText
              key={a.id}
              x={u}
              y={v + px(6)}
              fontSize={px(17)}
              fontFamily={fonts.heading}
              textAnchor="middle"
              fill={surface.quiet}
            >
              {a.id}
            </SvgText>
          );
        })}
    </G>
  );
}

/** What is painted on the floor, in its own metres: cross aisles, one-way arrows, closed ends, blocked stretches. */
export function FloorMarks({
  plan,
  marking,
  drawing: { px, surface },
}: {
  plan: Plan;
  marking: { aisle: string; from: number; to: number } | null | undefined;
  drawing: Drawing;
}) {
  const x = new Map(plan.aisles.map((a) => [a.id, a.x]));
  const [low, high] = [plan.crossAisles[0]!, plan.crossAisles.at(-1)!];
  const whole = wholePlan(plan);
  return (
    <G>
      {plan.crossAisles.map((y) => (
        <Line
          key={y}
          x1={whole.left + 1.2}
          x2={whole.left + whole.width - 1.2}
          y1={y}
          y2={y}
          stroke={surface.line}
          strokeWidth={px(1.5)}
          strokeDasharray={`${px(8)} ${px(6)}`}
        />
      ))}
      {plan.aisles.map((a) =>
        a.oneWay
          ? plan.crossAisles.slice(1).map((y, i) => {
              const tip = a.oneWay === 'up' ? 1 : -1;
              const s = px(14);
              const from = (y + plan.crossAisles[i]!) / 2 + s * tip;
              return (
                <Path
                  key={`${a.id} ${y}`}
                  d={`M${a.x} ${from}l${0.5 * s} ${-s * tip}h${-0.3 * s}v${-s * tip}h${-0.4 * s}v${s * tip}h${-0.3 * s}z`}
                  fill={surface.ink}
                />
              );
            })
          : null,
      )}
      {plan.aisles.map((a) => (
        <G key={`${a.id} ends`}>
          {a.from !== undefined && a.from > low && (
            <Rect x={a.x - 0.5} y={low} width={1} height={a.from - low} fill={surface.line} />
          )}
          {a.to !== undefined && a.to < high && (
            <Rect x={a.x - 0.5} y={a.to} width={1} height={high - a.to} fill={surface.line} />
          )}
        </G>
      ))}
      {[...plan.blocked, ...(marking ? [marking] : [])].map((b, i) =>
        'aisle' in b ? (
          <Rect
            key={i}
            x={x.get(b.aisle)! - 0.55}
            y={b.from}
            width={1.1}
            height={Math.max(0.3, b.to - b.from)}
            fill="url(#hazard)"
          />
        ) : (
          <Rect key={i} x={b.from} y={b.crossAisle - 0.55} width={b.to - b.from} height={1.1} fill="url(#hazard)" />
        ),
      )}
    </G>
  );
}

const sizes: Record<Plan['places'][number]['kind'], [across: number, along: number]> = {
  door: [4, 0.5],
  bench: [2.6, 0.9],
  lane: [3.4, 1.6],
};

/** A lane as a field painted on the floor, a bench as a table, a door as a gap in the wall; each with its code. */
export function Spots({ places, drawing }: { places: Plan['places']; drawing: Drawing }) {
  const { at, px, scale, surface, turn } = drawing;
  const sideways = turn === 'east' || turn === 'west';
  const { left, bottom, width, height } = drawing.view;
  const inView = ({ x, y }: { x: number; y: number }) =>
    x > left && x < left + width && y > bottom + 1 && y < bottom + height;
  return (
    <G>
      {places.filter(inView).map(({ code, kind, x, y }) => {
        const [across, along] = sizes[kind];
        const [w, h] = sideways ? [along, across] : [across, along];
        const [u, v] = at(x, y);
        const inside = kind === 'lane' && !sideways && w * scale > 46;
        return (
          <G key={code}>
            <Rect
              x={u - w / 2}
              y={v - h / 2}
              width={w}
              height={h}
              fill={kind === 'lane' ? 'none' : kind === 'bench' ? surface.sunk : surface.ink}
              stroke={kind === 'door' ? surface.ink : surface.quiet}
              strokeWidth={px(1.5)}
              {...(kind === 'lane' ? { strokeDasharray: `${px(6)} ${px(3)}` } : {})}
            />
            <SvgText
              x={u}
              y={inside ? v + px(4) : v + h / 2 + px(13)}
              fontSize={px(12)}
              fontFamily={fonts.heading}
              textAnchor="middle"
              fill={surface.quiet}
            >
              {code}
            </SvgText>
          </G>
        );
      })}
    </G>
  );
}

/** Where runs begin, filled, and where they end, hollow. */
export function Ends({ plan, drawing: { at, px, surface } }: { plan: Plan; drawing: Drawing }) {
  const x = new Map(plan.aisles.map((a) => [a.id, a.x]));
  const square = (place: { aisle: string; y: number }, fill: string) => {
    const [u, v] = at(x.get(place.aisle) ?? 0, place.y);
    return (
      <Rect
        x={u - px(7)}
        y={v - px(7)}
        width={px(14)}
        height={px(14)}
        fill={fill}
        stroke={surface.ink}
        strokeWidth={px(2)}
      />
    );
  };
  return (
    <G>
      {square(plan.start, surface.ink)}
      {plan.finish && square(plan.finish, surface.raised)}
    </G>
  );
}
