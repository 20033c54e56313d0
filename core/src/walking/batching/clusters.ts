import { lengthOf, type Prepared } from './construct.ts';

/** Orders of a cluster that is joined by itself. */
const CLUSTER = 150;

/**
 * Parts orders into clusters with much of their way in common: each begins with the order of the longest walk that is
 * left (the seed of De Koster, Van der Poort and Wolters 1999) and takes in those that most of it has as neighbours.
 */
export function clusters(problem: Prepared, near: readonly (readonly number[])[]): number[][] {
  const lengths = problem.loads.map((_, o) => lengthOf(problem, [o]));
  const seeds = lengths.map((_, o) => o).sort((a, b) => lengths[b]! - lengths[a]! || a - b);
  const taken = new Uint8Array(lengths.length);
  const found: number[][] = [];
  let next = 0;
  const seed = (): number => {
    while (next < seeds.length && taken[seeds[next]!]) next++;
    return next < seeds.length ? seeds[next]! : -1;
  };
  for (let begin = seed(); begin >= 0; begin = seed()) {
    const cluster: number[] = [];
    const likes = new Map<number, number>();
    for (let order = begin; order >= 0 && cluster.length < CLUSTER;) {
      cluster.push(order);
      taken[order] = 1;
      likes.delete(order);
      near[order]!.forEach((other, rank) => {
        if (!taken[other]) likes.set(other, (likes.get(other) ?? 0) + 1 / (rank + 1));
      });
      let [most, likest] = [0, -1];
      for (const [other, like] of likes) if (like > most) [most, likest] = [like, other];
      order = likest >= 0 ? likest : seed();
    }
    found.push(cluster);
  }
  return found;
}
