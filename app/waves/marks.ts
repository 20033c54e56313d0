import type { FloorLayout, FloorPlan } from '@hand-relay/contract';

/** Metres from an aisle's middle within which a tap means the aisle. */
const REACH = 1.6;

/** The aisle, and the place along it, that a tap means; null beside all of them. */
export function aisleAt(
  plan: Pick<FloorPlan, 'aisles' | 'crossAisles'>,
  x: number,
  y: number,
): { aisle: string; y: number } | null {
  const [low, high] = [plan.crossAisles[0]!, plan.crossAisles.at(-1)!];
  let best: { aisle: string; far: number } | null = null;
  for (const a of plan.aisles) {
    const far = Math.abs(a.x - x);
    if (far <= REACH && (!best || far < best.far)) best = { aisle: a.id, far };
  }
  if (!best || y < low - 2 || y > high + 2) return null;
  return { aisle: best.aisle, y: Math.min(high, Math.max(low, Math.round(y * 2) / 2)) };
}

/** The next way of an aisle: both ways, up, down, and round again. */
export function turned(layout: FloorLayout, aisle: string): FloorLayout {
  return {
    ...layout,
    aisles: layout.aisles.map(({ oneWay, ...a }) =>
      a.id !== aisle
        ? { ...a, ...(oneWay ? { oneWay } : {}) }
        : {
            ...a,
            ...(oneWay === undefined ? { oneWay: 'up' as const } : oneWay === 'up' ? { oneWay: 'down' as const } : {}),
          },
    ),
  };
}

/** A layout with a stretch of an aisle blocked. */
export function blockedAt(layout: FloorLayout, aisle: string, one: number, other: number): FloorLayout {
  const [from, to] = [Math.min(one, other), Math.max(one, other)];
  return { ...layout, blocked: [...layout.blocked, { aisle, from, to: to > from ? to : from + 1 }] };
}

/** A layout without the blocked stretch at a place; null where none is there. */
export function freedAt(layout: FloorLayout, aisle: string, y: number): FloorLayout | null {
  const at = layout.blocked.findIndex((b) => 'aisle' in b && b.aisle === aisle && b.from - 0.5 <= y && y <= b.to + 0.5);
  return at < 0 ? null : { ...layout, blocked: layout.blocked.filter((_, i) => i !== at) };
}

/** Bins that a search means: those whose code begins with it, or contains it where none does. */
export function binsLike(plan: Pick<FloorPlan, 'bins'>, text: string): string[] {
  const wanted = text.trim().toUpperCase();
  if (wanted.length < 2) return [];
  const begins = plan.bins.filter((b) => b.bin.toUpperCase().startsWith(wanted));
  return (begins.length > 0 ? begins : plan.bins.filter((b) => b.bin.toUpperCase().includes(wanted))).map((b) => b.bin);
}
