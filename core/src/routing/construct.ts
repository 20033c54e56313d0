import { lengthOf, type Walks } from './problem.ts';

/**
 * The serpentine rule (S-shape; Hall 1993): aisles one after the other, walked up and down in turn. A rule to
 * begin with and to compare with.
 */
export function serpentine(walks: Walks, x: (aisle: string) => number): number[] {
  const inner = walks.places.slice(1, -1).map((place, i) => ({ node: i + 1, place }));
  const aisles = new Map<number, typeof inner>();
  for (const entry of inner) {
    const at = x(entry.place.aisle);
    aisles.set(at, [...(aisles.get(at) ?? []), entry]);
  }
  const order: number[] = [];
  let up = true;
  for (const at of [...aisles.keys()].sort((a, b) => a - b)) {
    const column = aisles.get(at)!.sort((a, b) => (up ? a.place.y - b.place.y : b.place.y - a.place.y));
    order.push(...column.map((e) => e.node));
    up = !up;
  }
  return order;
}

/** Cheapest insertion: nodes join the walk where they lengthen it least, the far ones first. */
export function insertion(walks: Walks): number[] {
  const { metres, size } = walks;
  const left = Array.from({ length: size - 2 }, (_, i) => i + 1).sort((a, b) => metres[b]! - metres[a]!);
  let order: number[] = [];
  for (const node of left) {
    let best = order;
    let least = Infinity;
    for (let at = 0; at <= order.length; at++) {
      const candidate = [...order.slice(0, at), node, ...order.slice(at)];
      const d = lengthOf(walks, candidate);
      if (d < least) [best, least] = [candidate, d];
    }
    order = best;
  }
  return order;
}
