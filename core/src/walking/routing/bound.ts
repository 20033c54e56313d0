import type { Walks } from './problem.ts';

/** Rounds of the ascent, and those without a better bound after which its steps are halved. */
const ROUNDS = 400;
const IDLE = 20;

/**
 * A length below every walk from node 0 over all nodes to the last one, by 1-trees with penalties (Held and Karp 1970,
 * 1971): the two ends are joined by a node of no length, and the spanning tree is driven towards a path. Where walks
 * differ with their direction the shorter counts.
 *
 * @param above the length of some walk: steps are measured by it
 */
export function treeBound({ metres, size }: Walks, above: number): number {
  if (size === 2) return metres[1]!;
  const d = new Float64Array(size * size);
  for (let i = 0; i < size; i++)
    for (let j = 0; j < size; j++) d[i * size + j] = Math.min(metres[i * size + j]!, metres[j * size + i]!);
  const penalty = new Float64Array(size);
  const wanted = (node: number) => (node === 0 || node === size - 1 ? 1 : 2);
  let best = 0;
  let pace = 1;
  let idle = 0;
  for (let round = 0; round < ROUNDS; round++) {
    const { length, degrees } = tree(d, size, penalty);
    let bound = length;
    let off = 0;
    for (let n = 0; n < size; n++) {
      bound -= penalty[n]! * wanted(n);
      off += (degrees[n]! - wanted(n)) ** 2;
    }
    if (bound > best + 1e-9) [best, idle] = [bound, 0];
    else if ((idle += 1) >= IDLE) [pace, idle] = [pace / 2, 0];
    if (off === 0) break;
    const step = (pace * Math.max(above - bound, 1e-6)) / off;
    for (let n = 0; n < size; n++) penalty[n]! += step * (degrees[n]! - wanted(n));
  }
  return best;
}

/** Shortest spanning tree with penalties at the nodes (Prim 1957). */
function tree(d: Float64Array, size: number, penalty: Float64Array): { length: number; degrees: Int32Array } {
  const degrees = new Int32Array(size);
  const near = new Float64Array(size).fill(Infinity);
  const by = new Int32Array(size);
  const done = new Uint8Array(size);
  let length = 0;
  let at = 0;
  done[0] = 1;
  for (let joined = 1; joined < size; joined++) {
    let next = -1;
    for (let n = 0; n < size; n++) {
      if (done[n]) continue;
      const metres = d[at * size + n]! + penalty[at]! + penalty[n]!;
      if (metres < near[n]!) {
        near[n] = metres;
        by[n] = at;
      }
      if (next < 0 || near[n]! < near[next]!) next = n;
    }
    length += near[next]!;
    degrees[next]! += 1;
    degrees[by[next]!]! += 1;
    done[next] = 1;
    at = next;
  }
  return { length, degrees };
}
