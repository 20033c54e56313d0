import type { BoxKind, Placed, Room } from './box.ts';

export interface StackFault {
  rule: 'turned' | 'outside' | 'overlap' | 'support' | 'load' | 'weight' | 'stop';
  /** Units by their place in the list; none for the weight of all. */
  units: number[];
}

/**
 * All that is wrong with a packing. Written apart from what makes packings, from their definition alone: every pair of
 * units is looked at, loads are passed down from the highest unit to the lowest.
 *
 * @param slack millimetres, or shares of a gram, by which sums may differ
 */
export function faultsOf(room: Room, kinds: readonly BoxKind[], units: readonly Placed[], slack = 1e-6): StackFault[] {
  const faults: StackFault[] = [];
  const wrong = (rule: StackFault['rule'], ...of: number[]) => faults.push({ rule, units: of });
  const end = (u: number, axis: 0 | 1 | 2) => units[u]!.at[axis] + units[u]!.size[axis];
  const shared = (a: number, b: number, axis: 0 | 1 | 2) =>
    Math.min(end(a, axis), end(b, axis)) - Math.max(units[a]!.at[axis], units[b]!.at[axis]);
  const kindOf = (u: number) => kinds[units[u]!.kind]!;

  units.forEach(({ kind, size }, u) => {
    const { size: own, keepUpright } = kinds[kind]!;
    const ordered = (sides: readonly number[]) => [...sides].sort((a, b) => a - b);
    const same = ordered(size).every((side, i) => Math.abs(side - ordered(own)[i]!) <= slack);
    if (!same || (keepUpright && Math.abs(size[2] - own[2]) > slack)) wrong('turned', u);
    for (const axis of [0, 1, 2] as const)
      if (units[u]!.at[axis] < -slack || end(u, axis) > room.inner[axis] + slack) {
        wrong('outside', u);
        break;
      }
  });
  for (let a = 0; a < units.length; a++)
    for (let b = a + 1; b < units.length; b++) {
      if (shared(a, b, 0) <= slack || shared(a, b, 1) <= slack) continue;
      if (shared(a, b, 2) > slack) wrong('overlap', a, b);
      const [low, high] = units[a]!.at[2] < units[b]!.at[2] ? [a, b] : [b, a];
      if (kindOf(low).stop < kindOf(high).stop) wrong('stop', low, high);
    }

  const load = units.map(() => 0);
  const order = units.map((_, u) => u).sort((a, b) => units[b]!.at[2] - units[a]!.at[2]);
  for (const u of order) {
    const under = units
      .map((_, v) => v)
      .filter((v) => v !== u && Math.abs(end(v, 2) - units[u]!.at[2]) <= slack)
      .map((v) => ({ v, area: Math.max(0, shared(u, v, 0)) * Math.max(0, shared(u, v, 1)) }))
      .filter(({ area }) => area > slack);
    const contact = under.reduce((sum, { area }) => sum + area, 0);
    const base = units[u]!.size[0] * units[u]!.size[1];
    if (units[u]!.at[2] > slack && contact < room.support * base - Math.max(slack, base * 1e-9)) wrong('support', u);
    for (const { v, area } of under) load[v]! += ((load[u]! + kindOf(u).weightG) * area) / contact;
  }
  units.forEach((_, u) => {
    const most = kindOf(u).maxLoadOnTopG;
    if (most !== null && load[u]! > most + slack * Math.max(1, most)) wrong('load', u);
  });
  if (units.reduce((sum, u) => sum + kinds[u.kind]!.weightG, 0) > room.maxWeightG + slack) wrong('weight');
  return faults;
}
