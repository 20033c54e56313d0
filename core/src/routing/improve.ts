import type { Walks } from './problem.ts';

const EPSILON = 1e-9;

/**
 * Local search with two moves until neither helps: turning a stretch round (2-opt; Croes 1958) and moving a
 * stretch of up to three nodes elsewhere (Or 1976).
 *
 * @returns a visiting order no longer than the one given
 */
export function improve(walks: Walks, given: readonly number[]): number[] {
  const tour = [0, ...given, walks.size - 1];
  while (turnStretch(walks, tour) || moveStretch(walks, tour));
  return tour.slice(1, -1);
}

function turnStretch({ metres, size }: Walks, tour: number[]): boolean {
  const d = (a: number, b: number) => metres[tour[a]! * size + tour[b]!]!;
  for (let i = 0; i < tour.length - 3; i++)
    for (let j = i + 2; j < tour.length - 1; j++) {
      if (d(i, j) + d(i + 1, j + 1) + EPSILON >= d(i, i + 1) + d(j, j + 1)) continue;
      const turned = tour.slice(i + 1, j + 1).reverse();
      tour.splice(i + 1, turned.length, ...turned);
      return true;
    }
  return false;
}

function moveStretch({ metres, size }: Walks, tour: number[]): boolean {
  const d = (a: number, b: number) => metres[a * size + b]!;
  for (let length = 1; length <= 3; length++)
    for (let i = 1; i + length < tour.length; i++) {
      const [before, first, last, after] = [tour[i - 1]!, tour[i]!, tour[i + length - 1]!, tour[i + length]!];
      const gain = d(before, first) + d(last, after) - d(before, after);
      if (gain <= EPSILON) continue;
      const rest = [...tour.slice(0, i), ...tour.slice(i + length)];
      for (let k = 0; k < rest.length - 1; k++) {
        const [p, q] = [rest[k]!, rest[k + 1]!];
        const forward = d(p, first) + d(last, q);
        const backward = d(p, last) + d(first, q);
        const cost = Math.min(forward, backward) - d(p, q);
        if (cost + EPSILON >= gain) continue;
        const stretch = tour.slice(i, i + length);
        if (backward < forward) stretch.reverse();
        rest.splice(k + 1, 0, ...stretch);
        tour.splice(0, tour.length, ...rest);
        return true;
      }
    }
  return false;
}
