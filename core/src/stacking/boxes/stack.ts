import type { BoxKind, Placed, Room, Sides } from './box.ts';

/** Sums of lengths and loads that differ by less than this are the same. */
const EPSILON = 1e-6;

interface Unit extends Placed {
  /** Units that it rests on, and which share of what it passes down each bears. */
  on: { unit: number; share: number }[];
  /** Grams that rest on it. */
  load: number;
}

/** Units in a room, each set down where it is supported and presses nothing beyond what that bears. */
export class Stack {
  readonly units: Unit[] = [];
  weightG = 0;
  /** Whether any unit bears only so much: otherwise nobody asks what rests on what. */
  readonly #limited: boolean;

  constructor(
    readonly room: Room,
    readonly kinds: readonly BoxKind[],
  ) {
    this.#limited = kinds.some((kind) => kind.maxLoadOnTopG !== null);
  }

  copy(): Stack {
    const copy = new Stack(this.room, this.kinds);
    for (const unit of this.units) copy.units.push({ ...unit });
    copy.weightG = this.weightG;
    return copy;
  }

  /**
   * Sets units down, in the order given. The caller answers for their not overlapping anything.
   *
   * @returns whether all could be; where one could not, nothing is set down
   */
  add(placed: readonly Placed[]): boolean {
    const before = this.units.length;
    const loads = this.units.map((unit) => unit.load);
    const weight = this.weightG;
    for (const one of placed)
      if (!this.#addOne(one)) {
        this.units.length = before;
        this.weightG = weight;
        for (let i = 0; i < before; i++) this.units[i]!.load = loads[i]!;
        // Supporters among what is gone: found again.
        if (this.units.some((unit) => unit.on.some((o) => o.unit >= before))) this.#loadAll();
        return false;
      }
    return true;
  }

  /** The most weight, in grams, that what lies directly under a place can bear together; Infinity on the floor. */
  bearable(at: Sides, size: Sides): number {
    if (!this.#limited || at[2] <= EPSILON) return Infinity;
    const known = new Map<number, number>();
    let sum = 0;
    for (let i = 0; i < this.units.length; i++) {
      const other = this.units[i]!;
      if (Math.abs(other.at[2] + other.size[2] - at[2]) > EPSILON || sharedArea(at, size, other) <= EPSILON) continue;
      sum += this.#spare(i, known);
      if (sum === Infinity) break;
    }
    return sum;
  }

  /** What may still rest on a unit, where nothing else comes: its own rest, or that of what it rests on. */
  #spare(at: number, known: Map<number, number>): number {
    const before = known.get(at);
    if (before !== undefined) return before;
    const unit = this.units[at]!;
    const most = this.kinds[unit.kind]!.maxLoadOnTopG;
    let spare = most === null ? Infinity : most - unit.load;
    for (const { unit: below, share } of unit.on) spare = Math.min(spare, this.#spare(below, known) / share);
    known.set(at, spare);
    return spare;
  }

  #addOne({ kind, at, size }: Placed): boolean {
    const box = this.kinds[kind]!;
    if (this.weightG + box.weightG > this.room.maxWeightG + EPSILON) return false;
    const on: Unit['on'] = [];
    const base = size[0] * size[1];
    const top = at[2] + size[2];
    let contact = 0;
    let bearsAbove = false;
    for (let i = 0; i < this.units.length; i++) {
      const other = this.units[i]!;
      const area = sharedArea(at, size, other);
      if (area <= EPSILON) continue;
      const otherTop = other.at[2] + other.size[2];
      if (otherTop <= at[2] + EPSILON) {
        // What is unloaded earlier never lies under what is unloaded later.
        if (this.kinds[other.kind]!.stop < box.stop) return false;
        if (otherTop < at[2] - EPSILON) continue;
        on.push({ unit: i, share: area });
        contact += area;
      } else if (other.at[2] >= top - EPSILON) {
        if (this.kinds[other.kind]!.stop > box.stop) return false;
        bearsAbove ||= other.at[2] <= top + EPSILON;
      }
    }
    if (at[2] > EPSILON && contact < this.room.support * base - EPSILON) return false;
    for (const one of on) one.share /= contact;
    this.units.push({ kind, at, size, on, load: 0 });
    this.weightG += box.weightG;
    // Under something that is there already it shares what that passes down: all of it is computed again.
    if (!this.#limited) return true;
    return bearsAbove ? this.#loadAll() : this.#press(this.units.length - 1, box.weightG);
  }

  /** Passes a weight down from a unit; false where somebody cannot bear it. */
  #press(from: number, grams: number): boolean {
    // Highest first: what a unit passes down is known when all above it have passed theirs.
    const below = new Set([from]);
    for (const unit of below) for (const { unit: next } of this.units[unit]!.on) below.add(next);
    const downwards = [...below].sort((a, b) => this.units[b]!.at[2] - this.units[a]!.at[2]);
    const more = new Map([[from, grams]]);
    for (const unit of downwards)
      for (const { unit: next, share } of this.units[unit]!.on)
        more.set(next, (more.get(next) ?? 0) + more.get(unit)! * share);
    more.delete(from);
    for (const [unit, own] of more) {
      const most = this.kinds[this.units[unit]!.kind]!.maxLoadOnTopG;
      if (most !== null && this.units[unit]!.load + own > most + EPSILON) return false;
    }
    for (const [unit, own] of more) this.units[unit]!.load += own;
    return true;
  }

  /** Supporters and loads of all units from nothing; whether all bear them. */
  #loadAll(): boolean {
    for (const unit of this.units) {
      unit.load = 0;
      unit.on = [];
      let contact = 0;
      this.units.forEach((other, i) => {
        if (Math.abs(other.at[2] + other.size[2] - unit.at[2]) > EPSILON) return;
        const area = sharedArea(unit.at, unit.size, other);
        if (area <= EPSILON) return;
        unit.on.push({ unit: i, share: area });
        contact += area;
      });
      for (const one of unit.on) one.share /= contact;
    }
    const downwards = this.units.map((_, i) => i).sort((a, b) => this.units[b]!.at[2] - this.units[a]!.at[2]);
    for (const i of downwards) {
      const unit = this.units[i]!;
      const { maxLoadOnTopG, weightG } = this.kinds[unit.kind]!;
      if (maxLoadOnTopG !== null && unit.load > maxLoadOnTopG + EPSILON) return false;
      for (const { unit: below, share } of unit.on) this.units[below]!.load += (unit.load + weightG) * share;
    }
    return true;
  }
}

/** The area, in mm², in which a box lies over or under a unit, seen from above. */
function sharedArea(at: Sides, size: Sides, other: Placed): number {
  const x = Math.min(at[0] + size[0], other.at[0] + other.size[0]) - Math.max(at[0], other.at[0]);
  if (x <= EPSILON) return 0;
  const y = Math.min(at[1] + size[1], other.at[1] + other.size[1]) - Math.max(at[1], other.at[1]);
  return y <= EPSILON ? 0 : x * y;
}
