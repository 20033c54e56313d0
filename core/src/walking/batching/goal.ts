import type { BatchOrder, Crew } from './problem.ts';

export interface GoalRun {
  orders: readonly number[];
  metres: number;
}

/** A move under trial: two runs as they would be, and what all cost before. */
export interface Trial {
  from: number;
  to: number;
  a: GoalRun;
  b: GoalRun;
  cost: number;
}

/** What a way of batching costs, in metres; of a trial what all would cost after it. */
export type Goal = (runs: readonly GoalRun[], trial?: Trial) => number;

/** The walk alone. */
export const leastWalk: Goal = (runs, trial) =>
  trial
    ? trial.cost - runs[trial.from]!.metres - (runs[trial.to]?.metres ?? 0) + trial.a.metres + trial.b.metres
    : runs.reduce((n, r) => n + r.metres, 0);

/** Metres that a second of lateness of one order is worth: nothing shortens a walk at the price of a missed truck. */
const LATE = 50;
/** Metres for each second that those wait whose departure can hardly be made. */
const HARDLY = 0.05;
/** Metres for each second that urgent orders wait longer, by priority. */
const WAIT: Readonly<Record<number, number>> = { 1: 0.02, 2: 0.01 };
/** Share of the crew's speed that each second of the last to finish counts beyond the even share. */
const UNEVEN = 0.25;

/** A run with its place in time. */
export interface TimedRun {
  run: number;
  person: number;
  /** Seconds from now. */
  begins: number;
  ends: number;
}

/**
 * When runs are walked by a crew that takes them one after the other: those with the earliest due first, then the most
 * urgent, the longest before the shorter ones; each is taken by who is free first.
 */
export function timesOf(runs: readonly GoalRun[], orders: readonly BatchOrder[], crew: Crew): TimedRun[] {
  const facts = runs.map((r, run) => {
    let [due, priority, seconds] = [Infinity, Infinity, crew.perRun + r.metres / crew.speed];
    for (const o of r.orders) {
      const order = orders[o]!;
      due = Math.min(due, order.due ?? Infinity);
      priority = Math.min(priority, order.priority);
      seconds += order.handling ?? 0;
    }
    return { run, due, priority, seconds };
  });
  facts.sort((a, b) => a.due - b.due || a.priority - b.priority || b.seconds - a.seconds || a.run - b.run);
  const free = new Array<number>(crew.people).fill(0);
  return facts.map(({ run, seconds }) => {
    let person = 0;
    for (let p = 1; p < free.length; p++) if (free[p]! < free[person]!) person = p;
    const begins = free[person]!;
    free[person] = begins + seconds;
    return { run, person, begins, ends: begins + seconds };
  });
}

/**
 * The walk, and beside it: what beginning each run costs, departures that are missed, urgent orders that wait, and a
 * crew of whom one finishes long after the others.
 */
export function forCrew(orders: readonly BatchOrder[], crew: Crew): Goal {
  const priced = (runs: readonly GoalRun[]) => {
    let cost = runs.reduce((n, r) => n + r.metres, 0);
    let [last, sum] = [0, 0];
    for (const { run, begins, ends } of timesOf(runs, orders, crew)) {
      last = Math.max(last, ends);
      sum += ends - begins;
      for (const o of runs[run]!.orders) {
        const { due, priority } = orders[o]!;
        // What is late whatever is done is walked first, but cuts no run into pieces.
        if (due === 0) cost += HARDLY * ends;
        else if (due !== null && due !== undefined && ends > due) cost += LATE * (ends - due);
        cost += (WAIT[priority] ?? 0) * ends;
      }
    }
    // Each run costs its beginning too, or a large crew would share a handful of orders out trip by trip.
    const begun = crew.perRun * crew.speed * runs.length;
    const sharing = Math.min(crew.people, orders.length);
    return cost + begun + UNEVEN * crew.speed * Math.max(0, last * sharing - sum);
  };
  return (runs, trial) => {
    if (!trial) return priced(runs.filter((r) => r.orders.length > 0));
    const other = [...runs];
    other[trial.from] = trial.a;
    other[trial.to] = trial.b;
    return priced(other.filter((r) => r.orders.length > 0));
  };
}
