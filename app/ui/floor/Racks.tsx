import type { FloorPlan as Plan } from '@hand-relay/contract';
import { useMemo } from 'react';
import { G, Rect, Text as SvgText } from 'react-native-svg';
import { fonts, type Surface } from '../theme.ts';
import { heatOf } from './heat.ts';

const DEPTH = 0.9;
const BAY = 1.1;

/** Racks of one place along one side of an aisle: the levels over one another, seen from above as one. */
export interface Rack {
  key: string;
  x: number;
  y: number;
  /** What its bins have in common, as `A-01`. */
  name: string;
  cold: boolean;
  open: number;
  found: boolean;
  fresh: boolean;
}

/** The racks of a plan, and the most units that any of them has to be picked. */
export function racksOf(
  plan: Pick<Plan, 'aisles' | 'bins' | 'zones'>,
  found: ReadonlySet<string> | undefined,
  fresh: ReadonlySet<string> | undefined,
): { racks: Rack[]; most: number } {
  const x = new Map(plan.aisles.map((a) => [a.id, a.x]));
  const cold = new Set(plan.zones.filter((z) => z.cold).map((z) => z.code));
  const racks = new Map<string, Rack>();
  for (const bin of plan.bins) {
    const key = `${bin.aisle}/${bin.y}/${bin.side}`;
    const known = racks.get(key);
    racks.set(key, {
      key,
      x: x.get(bin.aisle)! + (bin.side === 'left' ? -0.55 - DEPTH : 0.55),
      y: bin.y - BAY / 2,
      name: known ? alike(known.name, bin.bin) : bin.bin,
      cold: cold.has(bin.zone),
      open: (known?.open ?? 0) + (bin.open ?? 0),
      found: (known?.found ?? false) || (found?.has(bin.bin) ?? false),
      fresh: fresh?.has(bin.bin) ?? false,
    });
  }
  return { racks: [...racks.values()], most: Math.max(1, ...[...racks.values()].map((r) => r.open)) };
}

/** The most units that any rack has to be picked; at least one. */
export const mostToPick = (plan: Parameters<typeof racksOf>[0]): number => racksOf(plan, undefined, undefined).most;

/** The beginning that two codes share, without what stands between its parts. */
function alike(a: string, b: string): string {
  let n = 0;
  while (n < a.length && a[n] === b[n]) n += 1;
  return n === a.length && n === b.length ? a : a.slice(0, n).replace(/[^A-Za-z0-9]+$/, '');
}

/** Drawn in the floor's own metres: their group is turned. */
export function Racks({
  racks,
  most,
  heat,
  surface,
}: {
  racks: Rack[];
  most: number;
  heat: boolean;
  surface: Surface;
}) {
  return useMemo(
    () => (
      <>
        {racks.map((r) => (
          <Rect
            key={r.key}
            x={r.x}
            y={r.y}
            width={DEPTH}
            height={BAY}
            fill={r.fresh || (heat && r.open > 0) ? surface.ink : surface.sunk}
            fillOpacity={r.fresh ? 0.55 : !heat || r.open === 0 ? 1 : heatOf(r.open, most)}
            stroke={r.found ? surface.caution : r.cold ? surface.cold : surface.line}
            strokeWidth={r.found ? 4 : 1}
            // In pixels, whatever the scale: the racks are not drawn again for every step of a zoom.
            vectorEffect="non-scaling-stroke"
          />
        ))}
      </>
    ),
    [racks, most, heat, surface],
  );
}

/** From how many pixels a metre a rack has room for its name. */
const READABLE = 34;
const LETTERS = 13;
/** How dark a rack may be for dark letters. */
const DARK = 0.45;

/** The names of racks, where somebody has come so close that they can be read. */
export function RackNames({
  racks,
  most,
  heat,
  at,
  scale,
  surface,
}: {
  racks: Rack[];
  most: number;
  heat: boolean;
  at: (x: number, y: number) => [number, number];
  scale: number;
  surface: Surface;
}) {
  if (scale < READABLE) return null;
  return (
    <G>
      {racks.map((r) => {
        const [u, v] = at(r.x + DEPTH / 2, r.y + BAY / 2);
        return (
          <SvgText
            key={r.key}
            x={u}
            y={v + 4 / scale}
            fontSize={LETTERS / scale}
            fontFamily={fonts.heading}
            textAnchor="middle"
            fill={heat && heatOf(r.open, most) > DARK ? surface.ground : surface.ink}
          >
            {r.name}
          </SvgText>
        );
      })}
    </G>
  );
}
