import { mapFloor, type Floor } from '@hand-relay/core/walking/floor';
import { seeded } from '@hand-relay/core/random';
import { byRule, route, ruleNames } from '@hand-relay/core/walking/routing';
import { openSolver } from '@hand-relay/core/solver';
import { exactRound } from './exactRoute.ts';
import type { Note } from './note.ts';
import { quantile } from './scans.ts';

/** Floors of ten aisles, 5 m apart and 45 m long, with the places of stops 1 m apart. */
const floorOf = (blocks: number): Floor => ({
  aisles: Array.from({ length: 10 }, (_, i) => ({ id: `A${i}`, x: i * 5 })),
  crossAisles: Array.from({ length: blocks + 1 }, (_, i) => (i * 45) / blocks),
});
const depot = { aisle: 'A0', y: 0 };
const CASES = 25;
/** Cases that the other exact method is asked for, and seconds that it gets for each. */
const CHECKED = 3;
const SECONDS = 20;

/** Routes beside each rule of thumb and beside another exact method. */
export async function benchRouting(note: Note): Promise<void> {
  const solver = await openSolver();
  for (const blocks of [1, 2, 3])
    for (const stops of [10, 30, 60, 100]) {
      const random = seeded(100 * blocks + stops);
      const floor = floorOf(blocks);
      const map = mapFloor(floor);
      const cases = Array.from({ length: CASES }, () =>
        Array.from({ length: stops }, (_, i) => ({ id: `s${i}`, aisle: `A${random.int(0, 9)}`, y: random.int(1, 44) })),
      );
      const problem = (c: (typeof cases)[number]) => ({ floor, start: depot, finish: depot, stops: c });
      cases.forEach((c) => route(problem(c), { seed: 1 }, map));
      const times: number[] = [];
      const found = cases.map((c) => {
        const begun = performance.now();
        const r = route(problem(c), { seed: 1 }, map);
        times.push(performance.now() - begun);
        return r;
      });
      const what = `${stops} stops, ${blocks} block${blocks > 1 ? 's' : ''}`;
      const aim = blocks === 1 && stops === 60 ? 'under 5' : blocks === 3 && stops === 100 ? 'under 30' : '';
      note(`${what}: proven of ${CASES}`, found.filter((r) => r.proven).length, '', String(CASES));
      note(`${what}: milliseconds, median`, quantile(times, 0.5), 'ms', aim);
      note(`${what}: milliseconds, worst`, Math.max(...times), 'ms');
      for (const rule of ruleNames) {
        const ruled = cases.map((c) => byRule(rule, problem(c), map).distance);
        const over = ruled.map((d, i) => d / found[i]!.distance - 1);
        note(`${what}: ${rule} longer by, mean`, (100 * over.reduce((a, b) => a + b, 0)) / CASES, '%');
      }
      let [agree, asked, ms] = [0, 0, 0];
      for (let i = 0; i < CHECKED; i++) {
        const begun = performance.now();
        const { metres, proven } = exactRound(floor, depot, cases[i]!, solver, SECONDS);
        if (!proven) continue;
        ms += performance.now() - begun;
        asked += 1;
        if (Math.abs(metres - found[i]!.distance) < 1e-6) agree += 1;
      }
      note(`${what}: mixed-integer program done in ${SECONDS} s, of ${CHECKED}`, asked, '');
      note(`${what}: the two agree in`, agree, '', String(asked));
      if (asked > 0) note(`${what}: mixed-integer program, mean`, ms / asked, 'ms');
    }
}

/** Walks of many stops over many blocks, and over one-way aisles, in the seconds that the planner is given. */
export function benchHardRoutes(note: Note): void {
  for (const { blocks, stops, seconds, oneWay, aim } of [
    { blocks: 6, stops: 300, seconds: 1, oneWay: false, aim: 2 },
    { blocks: 6, stops: 1000, seconds: 3, oneWay: false, aim: 4 },
    { blocks: 10, stops: 300, seconds: 1, oneWay: false, aim: null },
    { blocks: 3, stops: 300, seconds: 1, oneWay: true, aim: 5 },
    { blocks: 3, stops: 100, seconds: 1, oneWay: true, aim: null },
    { blocks: 6, stops: 300, seconds: 1, oneWay: true, aim: null },
  ]) {
    const floor: Floor = {
      aisles: Array.from({ length: 20 }, (_, i) => ({
        id: `A${i}`,
        x: i * 4,
        ...(oneWay ? { oneWay: i % 2 ? ('down' as const) : ('up' as const) } : {}),
      })),
      crossAisles: Array.from({ length: blocks + 1 }, (_, i) => i * 12),
    };
    const random = seeded(5);
    const places = Array.from({ length: stops }, (_, i) => ({
      id: `s${i}`,
      aisle: `A${random.int(0, 19)}`,
      y: random.int(1, blocks * 48 - 1) / 4,
    }));
    const begun = performance.now();
    const over = () => performance.now() - begun >= seconds * 1000;
    const found = route({ floor, start: depot, finish: depot, stops: places }, { seed: 1, over, sweepRows: 7 });
    const what = `${stops} stops, ${blocks} blocks${oneWay ? ', one-way aisles' : ''}`;
    note(
      `${what}: longer than the bound by`,
      100 * (found.distance / found.lowerBound - 1),
      '%',
      aim ? `at most ${aim}` : '',
    );
    note(`${what}: seconds`, (performance.now() - begun) / 1000, 's', `about ${seconds}`);
  }
}
