import { turnsOf, volumeOf, type BoxKind, type Placed, type Sides } from './box.ts';

/** Units that are set down together, as one body; their places are relative to its corner. */
export interface Block {
  size: Sides;
  /** Sum of the volumes of its units. */
  volume: number;
  weightG: number;
  /** Units of each kind. */
  counts: readonly number[];
  /** The kinds of which it has units. */
  kinds: readonly number[];
  /** Units from below upwards. */
  units: readonly Placed[];
}

/** Least share of a block that its units fill (Fanslau and Bortfeldt 2010 use the same). */
const LEAST_FILL = 0.98;

/**
 * Blocks of up to `most` in number: of units of one kind in one turn, laid in rows, and of two blocks that match in two
 * sides, again and again.
 *
 * @param inner the room
 * @param left units of each kind
 */
export function blocksFor(kinds: readonly BoxKind[], inner: Sides, left: readonly number[], most: number): Block[] {
  const found = new Map<string, Block>();
  const keep = (block: Block): Block | null => {
    const key = `${block.size.join()}|${block.counts.join()}`;
    if (found.has(key)) return null;
    found.set(key, block);
    return block;
  };
  const single: Block[] = [];
  kinds.forEach((kind, k) => {
    if (left[k] === 0) return;
    const turns = turnsOf(kind);
    const each = Math.max(2, Math.ceil(most / 2 / kinds.length / turns.length));
    for (const turn of turns)
      for (const block of rowsOf(kind, k, turn, inner, left, each)) {
        const kept = keep(block);
        if (kept) single.push(kept);
      }
  });
  let newest = single;
  while (newest.length > 0 && found.size < most) {
    const all = [...found.values()];
    const made: Block[] = [];
    for (const a of newest)
      for (const b of all) {
        if (found.size >= most) return [...found.values()];
        const volume = a.volume + b.volume;
        for (const axis of [0, 1, 2] as const) {
          const size = sizeOf(a.size, b.size, axis);
          if (volume < LEAST_FILL * size[0] * size[1] * size[2]) continue;
          if (size[axis] > inner[axis] || !canShare(a, b, left)) continue;
          const joined = join(a, b, axis, size);
          const kept = keep(joined);
          if (kept) made.push(kept);
        }
      }
    newest = made;
  }
  return [...found.values()];
}

/** Rows, layers and stacks of one kind in one turn, at most `most`. */
function rowsOf(kind: BoxKind, k: number, turn: Sides, inner: Sides, left: readonly number[], most: number): Block[] {
  const fit = turn.map((side, axis) => Math.floor((inner[axis]! + 1e-9) / side)) as [number, number, number];
  const sizes: [number, number, number][] = [];
  for (let nx = 1; nx <= fit[0] && nx <= left[k]!; nx++)
    for (let ny = 1; ny <= fit[1] && nx * ny <= left[k]!; ny++)
      for (let nz = 1; nz <= fit[2] && nx * ny * nz <= left[k]!; nz++) sizes.push([nx, ny, nz]);
  sizes.sort((a, b) => b[0] * b[1] * b[2] - a[0] * a[1] * a[2]);
  // From the largest to the single unit, evenly.
  const chosen =
    sizes.length <= most
      ? sizes
      : Array.from({ length: most }, (_, i) => sizes[Math.round((i * (sizes.length - 1)) / Math.max(1, most - 1))]!);
  return chosen.map(([nx, ny, nz]) => {
    const units: Placed[] = [];
    for (let z = 0; z < nz; z++)
      for (let y = 0; y < ny; y++)
        for (let x = 0; x < nx; x++) units.push({ kind: k, at: [x * turn[0], y * turn[1], z * turn[2]], size: turn });
    const counts = left.map((_, i) => (i === k ? units.length : 0));
    return {
      size: [nx * turn[0], ny * turn[1], nz * turn[2]],
      volume: units.length * volumeOf(turn),
      weightG: units.length * kind.weightG,
      counts,
      kinds: [k],
      units,
    };
  });
}

/** A block of units of one kind, or of several, made elsewhere. */
export function blockOf(kinds: readonly BoxKind[], size: Sides, units: readonly Placed[]): Block {
  const counts = kinds.map(() => 0);
  for (const { kind } of units) counts[kind]! += 1;
  return {
    size,
    units,
    counts,
    kinds: counts.flatMap((n, k) => (n > 0 ? [k] : [])),
    volume: units.reduce((sum, u) => sum + volumeOf(u.size), 0),
    weightG: units.reduce((sum, u) => sum + kinds[u.kind]!.weightG, 0),
  };
}

function canShare(a: Block, b: Block, left: readonly number[]): boolean {
  for (const k of b.kinds) if (a.counts[k]! + b.counts[k]! > left[k]!) return false;
  return true;
}

const sizeOf = (a: Sides, b: Sides, axis: 0 | 1 | 2): Sides =>
  axis === 0
    ? [a[0] + b[0], Math.max(a[1], b[1]), Math.max(a[2], b[2])]
    : axis === 1
      ? [Math.max(a[0], b[0]), a[1] + b[1], Math.max(a[2], b[2])]
      : [Math.max(a[0], b[0]), Math.max(a[1], b[1]), a[2] + b[2]];

/** Two blocks beside each other along an axis, or one on the other. */
function join(a: Block, b: Block, axis: 0 | 1 | 2, size: Sides): Block {
  const shifted = b.units.map((u): Placed => {
    const at: [number, number, number] = [...u.at];
    at[axis] += a.size[axis];
    return { ...u, at };
  });
  const units = [...a.units, ...shifted];
  if (axis !== 2) units.sort((p, q) => p.at[2] - q.at[2]);
  return {
    size,
    volume: a.volume + b.volume,
    weightG: a.weightG + b.weightG,
    counts: a.counts.map((n, k) => n + b.counts[k]!),
    kinds: [...new Set([...a.kinds, ...b.kinds])],
    units,
  };
}
