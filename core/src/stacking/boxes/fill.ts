import { seeded, type Random } from '../../random/index.ts';
import type { Block } from './blocks.ts';
import type { Kit } from './kit.ts';
import { volumeOf, type BoxKind, type Placed, type Room, type Sides } from './box.ts';
import type { Effort } from './effort.ts';
import { cutSpaces, type Space } from './spaces.ts';
import { Stack } from './stack.ts';

/** What went into a room. */
export interface Filled {
  units: Placed[];
  /** Units of each kind that found no room. */
  left: number[];
  /** Volume of the units inside, mm³. */
  volume: number;
}

interface State {
  stack: Stack;
  spaces: Space[];
  left: number[];
  volume: number;
}

/** Which free space is looked at first, and how much a unit of each kind is preferred. */
interface Way {
  order: SpaceOrder;
  keys: readonly number[];
}

const orders = {
  /** Lowest first, layer by layer. */
  low: (a: Space, b: Space) => a.from[2] - b.from[2] || a.from[0] - b.from[0] || a.from[1] - b.from[1],
  /** Nearest to the corner. */
  corner: (a: Space, b: Space) => sum(a.from) - sum(b.from) || a.from[2] - b.from[2] || a.from[0] - b.from[0],
  /** Wall by wall from one end. */
  wall: (a: Space, b: Space) => a.from[0] - b.from[0] || a.from[2] - b.from[2] || a.from[1] - b.from[1],
} as const;
type SpaceOrder = keyof typeof orders;

const sum = (s: Sides) => s[0] + s[1] + s[2];
/** Blocks that are tried in a space, best first, before it is given up. */
const TRIED = 12;
/** Volumes of the room of which large, small and light units are looked at, where far more are there. */
const LARGE = 2;
const SMALL = 0.5;
const LIGHT = 1.5;
/** Ways of the best that new ones are made from. */
const ELITE = 4;

/**
 * Fills a room with as much as it takes. Blocks are set down in the maximal free spaces, the block first whose volume
 * less the volume that it wastes is greatest; ways of choosing the space and preferences of kinds are tried, then a beam
 * over the blocks, each state judged by how it would be filled up (Fanslau and Bortfeldt 2010; Zhu and Lim 2012), then
 * random keys (Gonçalves and Resende 2013).
 *
 * @param kit what can be set down, for these units or more
 * @param wanted units of each kind
 * @param first kinds that go in before all others
 */
export function fill(
  room: Room,
  { kinds, blocks, usable }: Kit,
  wanted: readonly number[],
  { effort, seed, first = [] }: { effort: Effort; seed: number; first?: readonly number[] },
): Filled {
  const [l, w, h] = room.inner;
  const some = narrowed(kinds, wanted, volumeOf(room.inner));
  const small = blocks.filter((b) => b.size[0] <= l && b.size[1] <= w && b.size[2] <= h && fitsLeft(b, some));
  const search = new Search(room, kinds, small, usable(room.inner), effort);
  const start: State = {
    stack: new Stack(room, kinds),
    spaces: [{ from: [0, 0, 0], to: room.inner }],
    left: [...some],
    volume: 0,
  };
  const tried: { way: Way; volume: number }[] = [];
  for (const way of firstWays(kinds, first))
    if (tried.length === 0 || !search.done) tried.push({ way, volume: search.greedy(start, way).volume });
  const random = seeded(seed);
  tried.sort((a, b) => b.volume - a.volume);
  for (let width = 2; !search.done; width *= 2) {
    if (!search.beam(start, tried[0]!.way, width)) break;
    for (let i = 0; i < 2 * width && !search.done; i++) {
      const way = crossed(
        tried.slice(0, ELITE).map((t) => t.way),
        kinds.length,
        random,
      );
      tried.push({ way, volume: search.greedy(start, way).volume });
      tried.sort((a, b) => b.volume - a.volume);
    }
  }
  const best = search.best ?? start;
  return {
    units: best.stack.units.map(({ kind, at, size }) => ({ kind, at, size })),
    left: wanted.map((n, k) => n - some[k]! + best.left[k]!),
    volume: best.volume,
  };
}

/**
 * Of far more units than a room takes, the largest, some of the smallest and the lightest: the others would be looked at in vain.
 *
 * @param volume of the room
 */
function narrowed(kinds: readonly BoxKind[], wanted: readonly number[], volume: number): number[] {
  const volumes = kinds.map((kind, k) => volumeOf(kind.size) * wanted[k]!);
  if (volumes.reduce((sum, v) => sum + v, 0) <= (LARGE + SMALL + LIGHT) * volume) return [...wanted];
  const bySize = kinds
    .map((kind, k) => ({ k, late: kind.stop, size: volumeOf(kind.size) }))
    .filter(({ k }) => wanted[k]! > 0)
    // What is unloaded last goes in first.
    .sort((a, b) => (a.late === b.late ? b.size - a.size : b.late - a.late));
  const some = kinds.map(() => 0);
  for (const [list, most] of [
    [bySize, LARGE],
    [[...bySize].reverse(), SMALL],
    [[...bySize].sort((a, b) => kinds[a.k]!.weightG / a.size - kinds[b.k]!.weightG / b.size), LIGHT],
  ] as const) {
    let taken = 0;
    for (const { k, size } of list) {
      const units = Math.min(wanted[k]! - some[k]!, Math.ceil((most * volume - taken) / size));
      if (units <= 0) continue;
      some[k]! += units;
      taken += units * size;
    }
  }
  return some;
}

/** All kinds alike; strong ones first; heavy ones first: each with every order of spaces. */
function firstWays(kinds: readonly BoxKind[], first: readonly number[]): Way[] {
  const most = Math.max(...kinds.map((k) => k.weightG), 1);
  const bearing = kinds.map(({ maxLoadOnTopG }) =>
    maxLoadOnTopG === null ? 1 : 0.25 + Math.min(0.5, maxLoadOnTopG / most / 16),
  );
  const last = Math.max(...kinds.map((k) => (Number.isFinite(k.stop) ? k.stop : 0)), 0);
  // What is unloaded last goes in first.
  const late = kinds.map(
    ({ stop }, k) => (Number.isFinite(stop) ? 10 ** (stop - last) : 10) * (first.includes(k) ? 1000 : 1),
  );
  const keys: number[][] = [late];
  if (bearing.some((b) => b < 1)) keys.push(late.map((n, k) => n * bearing[k]! ** 2));
  if (kinds.some((k) => k.weightG > 0)) keys.push(late.map((n, k) => n * (0.5 + kinds[k]!.weightG / most)));
  return keys.flatMap((own) => (['low', 'corner', 'wall'] as const).map((order) => ({ order, keys: own })));
}

function crossed(elite: readonly Way[], count: number, random: Random): Way {
  const parent = random.pick(elite);
  return {
    order: random.next() < 0.8 ? parent.order : random.pick(['low', 'corner', 'wall'] as const),
    keys: Array.from({ length: count }, (_, k) =>
      random.next() < 0.6 ? parent.keys[k]! : parent.keys[k]! * (0.25 + 1.5 * random.next()),
    ),
  };
}

class Search {
  best: State | null = null;
  readonly #worths = new WeakMap<readonly number[], ReadonlyMap<Block, number>>();

  constructor(
    private readonly room: Room,
    private readonly kinds: readonly BoxKind[],
    private readonly blocks: readonly Block[],
    private readonly usable: readonly (Uint32Array | undefined)[],
    private readonly effort: Effort,
  ) {}

  get done(): boolean {
    return this.effort.ended || (this.best !== null && this.best.left.every((n) => n === 0));
  }

  #use(length: number, axis: number): number {
    const of = this.usable[axis];
    return of ? (of[Math.floor(length)] ?? length) : length;
  }

  /** How much each block is preferred: the volume of its units, weighed by their keys. */
  #preferred({ keys }: Way): ReadonlyMap<Block, number> {
    const before = this.#worths.get(keys);
    if (before) return before;
    const worth = this.kinds.map((kind, k) => keys[k]! * volumeOf(kind.size));
    const made = new Map(
      this.blocks.map((b) => [b, b.kinds.reduce((total, k) => total + b.counts[k]! * worth[k]!, 0)]),
    );
    this.#worths.set(keys, made);
    return made;
  }

  /** Blocks for a space with what is left, best first. */
  #ranked(state: State, space: Space, preferred: ReadonlyMap<Block, number>, alive: readonly Block[]): Block[] {
    const [l, w, h] = [space.to[0] - space.from[0], space.to[1] - space.from[1], space.to[2] - space.from[2]];
    const bearable = this.room.maxWeightG - state.stack.weightG + 1e-6;
    const volume = l * w * h;
    const best: Block[] = [];
    const scores: number[] = [];
    for (const block of alive) {
      const [bl, bw, bh] = block.size;
      if (bl > l || bw > w || bh > h || block.weightG > bearable) continue;
      const filled = (bl + this.#use(l - bl, 0)) * (bw + this.#use(w - bw, 1)) * (bh + this.#use(h - bh, 2));
      const score = preferred.get(block)! * (1 - (volume - filled) / block.volume);
      let at = best.length;
      if (at === TRIED && scores[at - 1]! >= score) continue;
      while (at > 0 && scores[at - 1]! < score) at -= 1;
      best.splice(at, 0, block);
      scores.splice(at, 0, score);
      if (best.length > TRIED) {
        best.pop();
        scores.pop();
      }
    }
    return best;
  }

  /** The first space in which something can be set down, with what can; spaces in which nothing can are dropped. */
  #next(
    state: State,
    way: Way,
    preferred: ReadonlyMap<Block, number>,
    alive: readonly Block[],
  ): { space: Space; blocks: Block[] } | null {
    const order = orders[way.order];
    while (state.spaces.length > 0) {
      let space = state.spaces[0]!;
      for (const other of state.spaces) if (order(other, space) < 0) space = other;
      const blocks = this.#ranked(state, space, preferred, alive);
      if (blocks.length > 0) return { space, blocks };
      state.spaces = state.spaces.filter((s) => s !== space);
    }
    return null;
  }

  #set(state: State, space: Space, block: Block): boolean {
    if (block.weightG > state.stack.bearable(space.from, block.size) + 1e-6) return false;
    const [x, y, z] = space.from;
    const placed = block.units.map(({ kind, at, size }): Placed => ({
      kind,
      at: [at[0] + x, at[1] + y, at[2] + z],
      size,
    }));
    if (!state.stack.add(placed)) return false;
    state.spaces = cutSpaces(state.spaces, space.from, block.size);
    state.left = state.left.map((n, k) => n - block.counts[k]!);
    state.volume += block.volume;
    return true;
  }

  #keep(state: State): void {
    if (!this.best || state.volume > this.best.volume) this.best = state;
  }

  /** Sets block after block down, always the best one. */
  greedy(from: State, way: Way): State {
    this.effort.use();
    const state: State = { ...from, stack: from.stack.copy() };
    const preferred = this.#preferred(way);
    let alive = this.blocks.filter((b) => fitsLeft(b, state.left));
    for (
      let found = this.#next(state, way, preferred, alive);
      found;
      found = this.#next(state, way, preferred, alive)
    ) {
      const { space, blocks } = found;
      if (blocks.some((block) => this.#set(state, space, block))) alive = alive.filter((b) => fitsLeft(b, state.left));
      else state.spaces = state.spaces.filter((s) => s !== space);
    }
    this.#keep(state);
    return state;
  }

  /**
   * Several states at a time, each with several blocks in its next space; those go on that fill up best.
   *
   * @returns whether another beam could find more
   */
  beam(from: State, way: Way, width: number): boolean {
    const preferred = this.#preferred(way);
    let states = [from];
    let cut = false;
    while (states.length > 0 && !this.done) {
      const next = new Map<string, { state: State; worth: number }>();
      for (const state of states) {
        if (this.done) return true;
        const alive = this.blocks.filter((b) => fitsLeft(b, state.left));
        const base: State = { ...state };
        for (let found = this.#next(base, way, preferred, alive), set = 0; found && set === 0;) {
          const { space, blocks } = found;
          for (const block of blocks) {
            const child: State = { ...base, stack: base.stack.copy() };
            if (!this.#set(child, space, block)) continue;
            set += 1;
            if (set > width) {
              cut = true;
              break;
            }
            const worth = this.greedy(child, way).volume;
            const key = `${child.left.join()}|${child.volume}|${worth}`;
            if (!next.has(key)) next.set(key, { state: child, worth });
            if (this.done) return true;
          }
          if (set > 0) break;
          base.spaces = base.spaces.filter((s) => s !== space);
          found = this.#next(base, way, preferred, alive);
        }
      }
      const ranked = [...next.values()].sort((a, b) => b.worth - a.worth || b.state.volume - a.state.volume);
      cut ||= ranked.length > width;
      states = ranked.slice(0, width).map((r) => r.state);
    }
    return cut;
  }
}

function fitsLeft({ kinds, counts }: Block, left: readonly number[]): boolean {
  for (const k of kinds) if (counts[k]! > left[k]!) return false;
  return true;
}
