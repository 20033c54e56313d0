import { turnsOf, volumeOf, type BoxKind, type Placed, type Sides } from './box.ts';

/** Units that are set down together, as one body; their places are relative to its corner. */
export interface Block {
  size: Sides;
  /** Sum of the volumes of its units. */
  volume: number;
  weightG: number;
  /** Units of each kind. */
  counts: readonly number[];
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
    for (const turn of turnsOf(kind))
      for (const block of rowsOf(kind, k, turn, inner, left, Math.ceil(most / 2 / kinds.length))) {
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
        if (!canShare(a.counts, b.counts, left)) continue;
        for (const axis of [0, 1, 2] as const) {
          const joined = join(a, b, axis, inner);
          const kept = joined && keep(joined);
          if (kept) made.push(kept);
        }
      }
    newest = made;
  }
  return [...found.values()];
}

/** Rows, layers and stacks of one kind in one turn: of at most `most` the fullest and the smallest. */
function rowsOf(kind: BoxKind, k: number, turn: Sides, inner: Sides, left: readonly number[], most: number): Block[] {
  const fit = turn.map((side, axis) => Math.floor((inner[axis]! + 1e-9) / side)) as [number, number, number];
  const sizes: [number, number, number][] = [];
  for (let nx = 1; nx <= fit[0] && nx <= left[k]!; nx++)
    for (let ny = 1; ny <= fit[1] && nx * ny <= left[k]!; ny++)
      for (let nz = 1; nz <= fit[2] && nx * ny * nz <= left[k]!; nz++) sizes.push([nx, ny, nz]);
  sizes.sort((a, b) => b[0] * b[1] * b[2] - a[0] * a[1] * a[2]);
  const chosen = sizes.length <= most ? sizes : [...sizes.slice(0, most - 1), sizes.at(-1)!];
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
    volume: units.reduce((sum, u) => sum + volumeOf(u.size), 0),
    weightG: units.reduce((sum, u) => sum + kinds[u.kind]!.weightG, 0),
  };
}

function canShare(a: readonly number[], b: readonly number[], left: readonly number[]): boolean {
  for (let k = 0; k < left.length; k++) if (a[k]! + b[k]! > left[k]!) return false;
  return true;
}

/** Two blocks beside each other along an axis, or one on the other; null where it does not fit or leaves gaps. */
function join(a: Block, b: Block, axis: 0 | 1 | 2, inner: Sides): Block | null {
  const size: Sides = [
    axis === 0 ? a.size[0] + b.size[0] : Math.max(a.size[0], b.size[0]),
    axis === 1 ? a.size[1] + b.size[1] : Math.max(a.size[1], b.size[1]),
    axis === 2 ? a.size[2] + b.size[2] : Math.max(a.size[2], b.size[2]),
  ];
  if (size[0] > inner[0] || size[1] > inner[1] || size[2] > inner[2]) return null;
  const volume = a.volume + b.volume;
  if (volume < LEAST_FILL * volumeOf(size)) return null;
  const shifted = b.units.map((u): Placed => {
    const at: [number, number, number] = [...u.at];
    at[axis] += a.size[axis];
    return { ...u, at };
  });
  const units = [...a.units, ...shifted];
  if (axis !== 2) units.sort((p, q) => p.at[2] - q.at[2]);
  return { size, volume, weightG: a.weightG + b.weightG, counts: a.counts.map((n, k) => n + b.counts[k]!), units };
}
