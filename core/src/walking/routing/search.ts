import { seeded } from '../../random/index.ts';
import { lengthOf, type Walks } from './problem.ts';

const EPSILON = 1e-9;

/** How long a search goes on. Without `over` its length depends on the problem alone, so the same seed gives the same answer. */
export interface Effort {
  seed: number;
  /** Called before each step; true ends the search. */
  over?: (() => boolean) | undefined;
  /** Cross aisles up to which the exact sweep is made, where more than usual are worth their seconds. */
  sweepRows?: number | undefined;
  /** Steps of the search at most; as many as the problem's size asks for without it. */
  steps?: number | undefined;
}

/**
 * Cheapest insertion: nodes join the walk where they lengthen it least, the far ones first.
 *
 * @param begun inner nodes in the order in which a walk visits them already
 */
export function insertion({ metres, size }: Walks, begun: readonly number[] = []): number[] {
  const d = (a: number, b: number) => metres[a * size + b]!;
  const far = (n: number) => d(0, n) + d(n, size - 1);
  const tour = [0, ...begun, size - 1];
  const there = new Set(begun);
  const missing = Array.from({ length: size - 2 }, (_, i) => i + 1).filter((n) => !there.has(n));
  for (const node of missing.sort((a, b) => far(b) - far(a) || a - b)) {
    let [at, least] = [1, Infinity];
    for (let i = 1; i < tour.length; i++) {
      const [p, q] = [tour[i - 1]!, tour[i]!];
      // Without a way in or out the place is no place for it, unless there is none at all.
      const more = d(p, node) + d(node, q) - (d(p, q) === Infinity ? 0 : d(p, q));
      if (more < least) [at, least] = [i, more];
    }
    tour.splice(at, 0, node);
  }
  return tour.slice(1, -1);
}

/** Nodes beside which a node is looked for a better place. */
const NEIGHBOURS = 10;
/** Longest stretch that is moved elsewhere. */
const STRETCH = 3;
/** Nodes within which two stretches change places when the walk is shaken. */
const SHAKEN = 50;

/** The nearest inner nodes of each node, either way round, the nearest first. */
function nearest({ metres, size }: Walks): Int32Array[] {
  const inner = Array.from({ length: size - 2 }, (_, i) => i + 1);
  return Array.from({ length: size }, (_, node) => {
    const d = (n: number) => Math.min(metres[node * size + n]!, metres[n * size + node]!);
    const others = inner.filter((n) => n !== node && d(n) < Infinity);
    return Int32Array.from(others.sort((a, b) => d(a) - d(b) || a - b).slice(0, NEIGHBOURS));
  });
}

/**
 * A walk under improvement: 2-opt (Croes 1958) and moving stretches of up to three nodes (Or 1976), each node looked at
 * beside its nearest ones only, and again only when something beside it changed (don't-look bits; Bentley 1992).
 */
class Tour {
  readonly at: Int32Array;
  private readonly place: Int32Array;
  private readonly near: readonly Int32Array[];
  private readonly metres: Float64Array;
  private readonly size: number;
  /** Walks along the tour up to each place, and the same backwards: only where walks differ with their direction. */
  private readonly sums: { there: Float64Array; back: Float64Array } | null;
  private readonly queue: Int32Array;
  private readonly queued: Uint8Array;
  private first = 0;
  private waiting = 0;
  length = 0;

  constructor({ metres, size }: Walks, near: readonly Int32Array[], directed: boolean) {
    this.metres = metres;
    this.size = size;
    this.near = near;
    this.at = new Int32Array(size);
    this.place = new Int32Array(size);
    this.sums = directed ? { there: new Float64Array(size), back: new Float64Array(size) } : null;
    this.queue = new Int32Array(size);
    this.queued = new Uint8Array(size);
  }

  private d(a: number, b: number): number {
    return this.metres[a * this.size + b]!;
  }

  /** Takes a visiting order over; every node is to be looked at. */
  take(order: readonly number[]): void {
    this.at[0] = 0;
    order.forEach((node, i) => (this.at[i + 1] = node));
    this.at[this.size - 1] = this.size - 1;
    this.settle();
    for (let i = 0; i < this.size; i++) this.look(this.at[i]!);
  }

  /** Takes over a tour whose places are given as they are. */
  restore(at: Int32Array, length: number): void {
    this.at.set(at);
    for (let i = 0; i < this.size; i++) this.place[at[i]!] = i;
    this.length = length;
    if (this.sums) this.sum();
  }

  private settle(): void {
    const { at, place, size } = this;
    let length = 0;
    for (let i = 0; i < size; i++) {
      place[at[i]!] = i;
      if (i > 0) length += this.d(at[i - 1]!, at[i]!);
    }
    this.length = length;
    if (this.sums) this.sum();
  }

  private sum(): void {
    const { at, size } = this;
    const { there, back } = this.sums!;
    for (let i = 1; i < size; i++) {
      there[i] = there[i - 1]! + this.d(at[i - 1]!, at[i]!);
      back[i] = back[i - 1]! + this.d(at[i]!, at[i - 1]!);
    }
  }

  look(node: number): void {
    if (this.queued[node]) return;
    this.queued[node] = 1;
    this.queue[(this.first + this.waiting++) % this.size] = node;
  }

  /** Improves until nothing beside a node that is to be looked at helps. */
  improve(): void {
    while (this.waiting > 0) {
      const node = this.queue[this.first]!;
      this.first = (this.first + 1) % this.size;
      this.waiting--;
      this.queued[node] = 0;
      while (this.better(node));
    }
  }

  private better(node: number): boolean {
    return this.turn(node) || this.move(node);
  }

  /** How much longer the stretch from place i to j is when it is walked backwards. */
  private turned(i: number, j: number): number {
    if (!this.sums) return 0;
    const { there, back } = this.sums;
    return back[j]! - back[i]! - (there[j]! - there[i]!);
  }

  /** Turns a stretch round so that the node stands beside one of its nearest. */
  private turn(node: number): boolean {
    const { at, place, size } = this;
    const i = place[node]!;
    for (const ahead of [true, false]) {
      if (ahead ? i === size - 1 : i === 0) continue;
      const beside = at[ahead ? i + 1 : i - 1]!;
      const now = ahead ? this.d(node, beside) : this.d(beside, node);
      for (const other of this.near[node]!) {
        const j = place[other]!;
        if (!this.sums && this.d(node, other) >= now) break;
        // The stretch between the two edges that are given up.
        const [low, high] = ahead ? (i < j ? [i + 1, j] : [j + 1, i]) : i < j ? [i, j - 1] : [j, i - 1];
        if (low < 1 || high > size - 2 || low >= high) continue;
        const [before, after] = [at[low - 1]!, at[high + 1]!];
        const old = this.d(before, at[low]!) + this.d(at[high]!, after);
        const gain = old - this.d(before, at[high]!) - this.d(at[low]!, after) - this.turned(low, high);
        if (!(gain > EPSILON)) continue;
        this.reverse(low, high);
        this.length -= gain;
        for (const n of [before, after, at[low]!, at[high]!]) this.look(n);
        return true;
      }
    }
    return false;
  }

  private reverse(low: number, high: number): void {
    const { at, place } = this;
    for (let i = low, j = high; i < j; i++, j--) {
      const node = at[i]!;
      at[i] = at[j]!;
      at[j] = node;
      place[at[i]!] = i;
      place[node] = j;
    }
    if (low + high > 0 && (high - low) % 2 === 0) place[at[(low + high) / 2]!] = (low + high) / 2;
    if (this.sums) this.sum();
  }

  /** Moves a stretch that begins or ends at the node between two others, either way round. */
  private move(node: number): boolean {
    const { at, place, size } = this;
    const i = place[node]!;
    if (i === 0 || i === size - 1) return false;
    for (let length = 1; length <= STRETCH; length++)
      for (const ends of length === 1 ? [true] : [true, false]) {
        const [low, high] = ends ? [i - length + 1, i] : [i, i + length - 1];
        if (low < 1 || high > size - 2) continue;
        const [before, after] = [at[low - 1]!, at[high + 1]!];
        const gain = this.d(before, at[low]!) + this.d(at[high]!, after) - this.d(before, after);
        if (!(gain > EPSILON)) continue;
        for (const other of this.near[node]!) {
          const j = place[other]!;
          if (j >= low && j <= high) continue;
          // Into the gap behind the other one, and into the gap before it.
          for (const p of [j, j - 1]) {
            if (p < 0 || p >= size - 1 || (p >= low - 1 && p <= high)) continue;
            const [left, right] = [at[p]!, at[p + 1]!];
            const open = this.d(left, right);
            const forward = this.d(left, at[low]!) + this.d(at[high]!, right) - open;
            const backward = this.d(left, at[high]!) + this.d(at[low]!, right) + this.turned(low, high) - open;
            const cost = Math.min(forward, backward);
            if (!(cost + EPSILON < gain)) continue;
            this.shift(low, high, p, backward < forward);
            this.length -= gain - cost;
            for (const n of [before, after, left, right, node]) this.look(n);
            return true;
          }
        }
      }
    return false;
  }

  private shift(low: number, high: number, behind: number, backwards: boolean): void {
    const { at, place } = this;
    const stretch = at.slice(low, high + 1);
    if (backwards) stretch.reverse();
    const length = high - low + 1;
    let [from, to] = [low, high];
    if (behind < low) {
      at.copyWithin(behind + 1 + length, behind + 1, low);
      at.set(stretch, behind + 1);
      from = behind + 1;
    } else {
      at.copyWithin(low, high + 1, behind + 1);
      at.set(stretch, behind - length + 1);
      to = behind;
    }
    for (let k = from; k <= to; k++) place[at[k]!] = k;
    if (this.sums) this.sum();
  }

  /** Two neighbouring stretches change places (the double bridge of Martin, Otto and Felten 1991), near to one another. */
  shake(next: (low: number, high: number) => number): void {
    const { at, place, size } = this;
    const span = Math.min(SHAKEN, size - 2);
    const begin = next(1, size - 1 - span);
    const cuts = [next(0, span), next(0, span), next(0, span)].sort((a, b) => a - b);
    const [a, b, c] = cuts.map((cut) => begin + cut) as [number, number, number];
    if (a === b || b === c) return;
    const touched = [at[a - 1]!, at[a]!, at[b - 1]!, at[b]!, at[c - 1]!, at[c]!];
    const before = this.d(at[a - 1]!, at[a]!) + this.d(at[b - 1]!, at[b]!) + this.d(at[c - 1]!, at[c]!);
    const after = this.d(at[a - 1]!, at[b]!) + this.d(at[c - 1]!, at[a]!) + this.d(at[b - 1]!, at[c]!);
    const first = at.slice(a, b);
    at.copyWithin(a, b, c);
    at.set(first, a + c - b);
    for (let k = a; k < c; k++) place[at[k]!] = k;
    this.length += after - before;
    if (this.sums) this.sum();
    for (const node of touched) this.look(node);
  }
}

/** Steps of a search for each node, and in all: beyond them a second brings next to nothing. */
const STEPS_EACH = 400;
const STEPS_MOST = 400_000;
const STEPS_LEAST = 600;
/** Steps between two looks at the clock. */
const LOOK = 16;

/**
 * Iterated local search from the best of the orders given (Lourenço, Martin and Stützle 2003): shaken in one place,
 * improved around it, and taken back where it came out longer.
 *
 * @param enough a length that cannot be beaten: reaching it ends the search
 */
export function search(walks: Walks, orders: number[][], enough: number, { seed, over, steps }: Effort): number[] {
  const { size, metres } = walks;
  const random = seeded(seed);
  const next = (low: number, high: number) => random.int(low, high);
  let directed = false;
  for (let i = 0; i < size && !directed; i++)
    for (let j = 0; j < i && !directed; j++)
      directed = Math.abs(metres[i * size + j]! - metres[j * size + i]!) > EPSILON;
  const tour = new Tour(walks, nearest(walks), directed);
  const shortest = orders.reduce((a, b) => (lengthOf(walks, b) < lengthOf(walks, a) ? b : a));
  // From the shortest first: where the time is over then, no other is improved.
  const ranked = [shortest, ...orders.filter((o) => o !== shortest)];
  let best: Int32Array | null = null;
  let least = Infinity;
  for (const order of ranked) {
    if (best && over?.()) break;
    if (lengthOf(walks, order) === Infinity) continue;
    tour.take(order);
    tour.improve();
    if (tour.length < least - EPSILON) [best, least] = [tour.at.slice(), tour.length];
  }
  if (!best) return shortest;
  const most = size < 6 ? 0 : (steps ?? Math.max(STEPS_LEAST, Math.min(STEPS_MOST, STEPS_EACH * size)));
  tour.restore(best, least);
  for (let step = 0; step < most && least > enough + EPSILON; step++) {
    if (step % LOOK === 0 && over?.()) break;
    tour.shake(next);
    tour.improve();
    if (tour.length <= least + EPSILON) {
      best.set(tour.at);
      least = Math.min(least, tour.length);
    } else tour.restore(best, least);
  }
  return [...best.subarray(1, -1)];
}
