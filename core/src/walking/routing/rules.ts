import type { FloorMap, Place, Point } from '../floor/index.ts';
import type { RouteProblem, Stop } from './problem.ts';
import { alongCorners, cornersOf } from './trace.ts';

/** Rules of thumb of the order-picking literature (Hall 1993; Roodbergen and De Koster 2001), to compare with. */
export const ruleNames = ['serpentine', 'return', 'largest-gap', 'midpoint'] as const;
export type RuleName = (typeof ruleNames)[number];

/** A rule that has no answer here, and why. */
export class NoRule extends Error {}

export interface Ruled {
  distance: number;
  sequence: string[];
  path: Point[];
}

/** Places of one aisle in one block, by distance from the block's front. */
interface SubAisle {
  column: number;
  stops: Stop[];
}

/**
 * The walk of a rule. The front is the cross aisle of the start; where that is neither the first nor the last one, the
 * first. Blocks are served from the farthest to the nearest: up the first aisle with stops, whose stops on the way are
 * taken along, and then block by block, each begun at its nearer end (Roodbergen and De Koster 2001).
 *
 * Serpentine: aisles are walked through in turn, the last of an odd number in the block where the walk turns is left
 * where it was entered. Return: every aisle is left where it was entered. Midpoint and largest gap: the first aisle (in
 * the block where the walk turns) and the last are walked through, the others are entered from both ends up to the
 * middle, or to the largest gap between places.
 *
 * @throws NoRule where aisles are one-way or blocked, or start or finish lie at no cross aisle
 */
export function byRule(rule: RuleName, problem: RouteProblem, map: FloorMap): Ruled {
  const { network } = map;
  if (!network.plain) throw new NoRule('rules need two-way aisles that nothing blocks');
  const { rows, columns, columnOf } = network;
  for (const end of ['start', 'finish'] as const)
    if (!rows.includes(problem[end].y)) throw new NoRule(`${end} must lie at a cross aisle`);
  const turned = problem.start.y === rows.at(-1)!;
  const spots: Place[] = [problem.start];
  const sequence: string[] = [];
  const pass = (aisle: string, y: number) => spots.push({ aisle, y });
  const take = (stop: Stop) => {
    pass(stop.aisle, stop.y);
    sequence.push(stop.id);
  };
  // Rows from the front: fronts[0] is the front cross aisle.
  const fronts = turned ? [...rows].reverse() : rows;
  const ahead = (y: number) => (turned ? fronts[0]! - y : y - fronts[0]!);
  const idOf = (column: number) => columns[column]!.id;
  const byColumn = (a: Stop, b: Stop) => columnOf.get(a.aisle)! - columnOf.get(b.aisle)! || ahead(a.y) - ahead(b.y);
  const sorted = [...problem.stops].sort(byColumn);

  if (sorted.length > 0) {
    const blockOf = (stop: Stop) => {
      const block = fronts.findIndex(
        (front, b) => b + 1 < fronts.length && ahead(stop.y) <= ahead(fronts[b + 1]!) && ahead(stop.y) >= ahead(front),
      );
      return block;
    };
    const farthest = Math.max(...sorted.map(blockOf));
    const first = columnOf.get(sorted[0]!.aisle)!;
    pass(idOf(first), fronts[0]!);
    for (const stop of sorted) if (columnOf.get(stop.aisle) === first && blockOf(stop) < farthest) take(stop);
    pass(idOf(first), fronts[farthest]!);
    let at = first;
    for (let block = farthest; block >= 0; block--) {
      const aisles: SubAisle[] = [];
      for (const stop of sorted) {
        if (blockOf(stop) !== block) continue;
        const column = columnOf.get(stop.aisle)!;
        if (block < farthest && column === first) continue;
        if (aisles.at(-1)?.column === column) aisles.at(-1)!.stops.push(stop);
        else aisles.push({ column, stops: [stop] });
      }
      if (block < farthest && aisles.length > 0) {
        const x = (column: number) => columns[column]!.x;
        const far = (column: number) => Math.abs(x(column) - x(at));
        if (far(aisles.at(-1)!.column) < far(aisles[0]!.column)) aisles.reverse();
      }
      const walk = {
        front: fronts[block]!,
        back: fronts[block + 1]!,
        aisles,
        fromFront: block === farthest,
        idOf,
        pass,
        take,
      };
      if (aisles.length === 0) pass(idOf(at), walk.front);
      else
        at =
          rule === 'serpentine' ? serpentine(walk) : rule === 'return' ? goAndReturn(walk) : fromBothEnds(walk, rule);
    }
  }
  spots.push(problem.finish);
  const path = cornersOf(
    spots.flatMap((spot, i) => (i === 0 ? [[map.x(spot.aisle), spot.y] as Point] : map.walk(spots[i - 1]!, spot))),
  );
  return { distance: alongCorners(path), sequence, path };
}

interface BlockWalk {
  front: number;
  back: number;
  aisles: SubAisle[];
  /** Whether the walk stands at the front of the block; else at its back. */
  fromFront: boolean;
  idOf: (column: number) => string;
  pass: (aisle: string, y: number) => void;
  take: (stop: Stop) => void;
}

/** Each walk through a block ends at its front, in the column that it answers. */
function serpentine({ front, back, aisles, fromFront, idOf, pass, take }: BlockWalk): number {
  let atFront = fromFront;
  aisles.forEach(({ column, stops }, i) => {
    pass(idOf(column), atFront ? front : back);
    (atFront ? stops : [...stops].reverse()).forEach(take);
    const stays = i === aisles.length - 1 && atFront;
    pass(idOf(column), atFront && !stays ? back : front);
    atFront = stays || !atFront;
  });
  const last = aisles.at(-1)!.column;
  pass(idOf(last), front);
  return last;
}

function goAndReturn({ front, back, aisles, fromFront, idOf, pass, take }: BlockWalk): number {
  const side = fromFront ? front : back;
  aisles.forEach(({ column, stops }, i) => {
    pass(idOf(column), side);
    (fromFront ? stops : [...stops].reverse()).forEach(take);
    pass(idOf(column), i === aisles.length - 1 ? front : side);
  });
  return aisles.at(-1)!.column;
}

function fromBothEnds(walk: BlockWalk, rule: 'midpoint' | 'largest-gap'): number {
  const { front, back, aisles, fromFront, idOf, pass, take } = walk;
  if (aisles.length === 1) return serpentine(walk);
  const through = ({ column, stops }: SubAisle, fromBack: boolean) => {
    pass(idOf(column), fromBack ? back : front);
    (fromBack ? [...stops].reverse() : stops).forEach(take);
    pass(idOf(column), fromBack ? front : back);
  };
  const inner = aisles
    .slice(fromFront ? 1 : 0, -1)
    .map((aisle) => ({ ...aisle, cut: cutOf(aisle.stops, front, back, rule) }));
  if (fromFront) through(aisles[0]!, false);
  for (const { column, stops, cut } of inner) {
    if (cut === stops.length) continue;
    pass(idOf(column), back);
    stops.slice(cut).reverse().forEach(take);
    pass(idOf(column), back);
  }
  through(aisles.at(-1)!, true);
  let at = aisles.at(-1)!.column;
  for (const { column, stops, cut } of inner.reverse()) {
    if (cut === 0) continue;
    pass(idOf(column), front);
    stops.slice(0, cut).forEach(take);
    pass(idOf(column), front);
    at = column;
  }
  return at;
}

/** How many of an aisle's stops, from the front, are served from the front. */
function cutOf(stops: Stop[], front: number, back: number, rule: 'midpoint' | 'largest-gap'): number {
  if (rule === 'midpoint') {
    const middle = Math.abs(back - front) / 2;
    return stops.filter((s) => Math.abs(s.y - front) <= middle).length;
  }
  const ys = [front, ...stops.map((s) => s.y), back];
  let [cut, largest] = [0, -1];
  for (let i = 0; i + 1 < ys.length; i++) {
    const gap = Math.abs(ys[i + 1]! - ys[i]!);
    if (gap > largest) [cut, largest] = [i, gap];
  }
  return cut;
}
