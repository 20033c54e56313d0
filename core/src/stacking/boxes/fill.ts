import { seeded, type Random } from '../../random/index.ts';
import { blocksFor, type Block } from './blocks.ts';
import type { BoxKind, Placed, Room, Sides } from './box.ts';
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
/** Blocks of one room at most. */
const BLOCKS = 900;
/** Ways of the best that new ones are made from. */
const ELITE = 4;

/**
 * Fills a room with as much as it takes. Blocks are set down in the maximal free spaces, the block first whose volume
 * less the volume that it wastes is greatest; ways of choosing the space and preferences of kinds are tried, then a beam
 * over the blocks, each state judged by how it would be filled up (Fanslau and Bortfeldt 2010; Zhu and Lim 2012), then
 * random keys (Gonçalves and Resende 2013).
 *
 * @param wanted units of each kind
 * @param extra blocks that are made elsewhere: layers of a known pattern
 */
export function fill(
  room: Room,
  kinds: readonly BoxKind[],
  wanted: readonly number[],
  { effort, seed, extra = [] }: { effort: Effort; seed: number; extra?: readonly Block[] },
): Filled {
  const blocks = [...extra, ...blocksFor(kinds, room.inner, wanted, BLOCKS)];
  const usable = usableLengths(room.inner, kinds, wanted);
  const search = new Search(room, kinds, blocks, usable, effort);
  const start: State = {
    stack: new Stack(room, kinds),
    spaces: [{ from: [0, 0, 0], to: room.inner }],
    left: [...wanted],
    volume: 0,
  };
  const tried: { way: Way; volume: number }[] = [];
  for (const way of firstWays(kinds))
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
    left: best.left,
    volume: best.volume,
  };
}

/** All kinds alike; strong ones first; heavy ones first: each with every order of spaces. */
function firstWays(kinds: readonly BoxKind[]): Way[] {
  const most = Math.max(...kinds.map((k) => k.weightG), 1);
  const bearing = kinds.map(({ maxLoadOnTopG }) =>
    maxLoadOnTopG === null ? 1 : 0.25 + Math.min(0.5, maxLoadOnTopG / most / 16),
  );
  const last = Math.max(...kinds.map((k) => (Number.isFinite(k.stop) ? k.stop : 0)), 0);
  // What is unloaded last goes in first.
  const late = kinds.map(({ stop }) => (Number.isFinite(stop) ? 10 ** (stop - last) : 10));
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

/**
 * The longest sum of sides that a length can hold, for every whole millimetre: what is beyond it can never be filled.
 * Undefined for an axis whose lengths are not whole, or very long.
 */
function usableLengths(
  inner: Sides,
  kinds: readonly BoxKind[],
  wanted: readonly number[],
): (Uint32Array | undefined)[] {
  return ([0, 1, 2] as const).map((axis) => {
    const length = inner[axis];
    if (!Number.isInteger(length) || length > 40_000) return undefined;
    const reached = new Uint8Array(length + 1);
    reached[0] = 1;
    for (const [k, { size, keepUpright }] of kinds.entries()) {
      if (wanted[k] === 0) continue;
      const sides = new Set(keepUpright ? (axis === 2 ? [size[2]] : [size[0], size[1]]) : size);
      for (const side of sides) {
        if (!Number.isInteger(side) || side < 1) return undefined;
        for (let l = side; l <= length; l++) if (reached[l - side]) reached[l] = 1;
      }
    }
    const usable = new Uint32Array(length + 1);
    for (let l = 1; l <= length; l++) usable[l] = reached[l] ? l : usable[l - 1]!;
    return usable;
  });
}

class Search {
  best: State | null = null;

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

  /** Blocks for a space with what is left, best first. */
  #ranked(state: State, space: Space, { keys }: Way, alive: readonly Block[]): Block[] {
    const [l, w, h] = [space.to[0] - space.from[0], space.to[1] - space.from[1], space.to[2] - space.from[2]];
    const room = this.room.maxWeightG - state.stack.weightG;
    const scored: { block: Block; score: number }[] = [];
    for (const block of alive) {
      const [bl, bw, bh] = block.size;
      if (bl > l || bw > w || bh > h || block.weightG > room + 1e-6) continue;
      let preferred = 0;
      for (let k = 0; k < keys.length; k++) {
        const count = block.counts[k]!;
        if (count > 0)
          preferred += count * keys[k]! * this.kinds[k]!.size[0] * this.kinds[k]!.size[1] * this.kinds[k]!.size[2];
      }
      const filled = (bl + this.#use(l - bl, 0)) * (bw + this.#use(w - bw, 1)) * (bh + this.#use(h - bh, 2));
      scored.push({ block, score: preferred - (l * w * h - filled) * (preferred / block.volume) });
    }
    return scored
      .sort((a, b) => b.score - a.score)
      .slice(0, TRIED)
      .map((s) => s.block);
  }

  /** The first space in which something can be set down, with what can; spaces in which nothing can are dropped. */
  #next(state: State, way: Way, alive: readonly Block[]): { space: Space; blocks: Block[] } | null {
    const order = orders[way.order];
    while (state.spaces.length > 0) {
      let space = state.spaces[0]!;
      for (const other of state.spaces) if (order(other, space) < 0) space = other;
      const blocks = this.#ranked(state, space, way, alive);
      if (blocks.length > 0) return { space, blocks };
      state.spaces = state.spaces.filter((s) => s !== space);
    }
    return null;
  }

  #set(state: State, space: Space, block: Block): boolean {
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
    this.effort.steps -= 1;
    const state: State = { ...from, stack: from.stack.copy() };
    let alive = this.blocks.filter((b) => fitsLeft(b, state.left));
    for (let found = this.#next(state, way, alive); found; found = this.#next(state, way, alive)) {
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
    let states = [from];
    let cut = false;
    while (states.length > 0 && !this.done) {
      const next = new Map<string, { state: State; worth: number }>();
      for (const state of states) {
        if (this.done) return true;
        const alive = this.blocks.filter((b) => fitsLeft(b, state.left));
        const base: State = { ...state };
        for (let found = this.#next(base, way, alive), set = 0; found && set === 0;) {
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
          found = this.#next(base, way, alive);
        }
      }
      const ranked = [...next.values()].sort((a, b) => b.worth - a.worth || b.state.volume - a.state.volume);
      cut ||= ranked.length > width;
      states = ranked.slice(0, width).map((r) => r.state);
    }
    return cut;
  }
}

function fitsLeft(block: Block, left: readonly number[]): boolean {
  for (let k = 0; k < left.length; k++) if (block.counts[k]! > left[k]!) return false;
  return true;
}
