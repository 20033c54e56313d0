import type { Network } from '../floor/index.ts';
import { openFrontier, UNKNOWN, type Frontier } from './frontier.ts';
import { noOptions, optionsOf, timesAlong, type Needed, type Options } from './options.ts';

/** Cross aisles up to which a sweep is made: its states multiply with each further one. */
export const SWEEP_ROWS = 6;

/** Part of the shortest walk: how often it goes along an edge of the floor, either way. */
export interface Edge {
  from: { column: number; y: number };
  to: { column: number; y: number };
  times: number;
}

export interface Swept {
  metres: number;
  /** Empty unless asked for. */
  edges: Edge[];
}

/** A step of the sweep as it was taken: for each state reached, where the state before stood and what was chosen. */
interface Taken {
  from: Int32Array;
  how: Int32Array;
  edges: (choice: number) => Edge[];
}

const fronts = new Map<number, Front>();
const options = noOptions();
const nothing: Edge[] = [];
const noEdges = () => nothing;

/**
 * The shortest set of edges that connects all that must be visited and that can be walked in one go: a sweep over the
 * aisles one at a time, exact by dynamic programming (Ratliff and Rosenthal 1983 for one block; for any number of
 * cross aisles after Cambazard and Catusse 2018 and Pansart, Catusse and Cambazard 2018). Start and finish may lie
 * anywhere: an odd number of edges meets at each. Blocked stretches are edges that are not there, so that the sweep stays
 * exact on a floor that is no whole grid.
 *
 * On a floor with one-way aisles directions are ignored but for this: an aisle's stops are served walking through.
 * The result is then a bound below every walk.
 *
 * @param needed for each aisle in the network's order; null where nothing is needed
 * @param recording whether the edges are wanted
 * @returns infinite metres where not everything can be connected
 */
export function sweep(network: Network, needed: (Needed | null)[], recording = false): Swept {
  const { columns, rows, across, plain } = network;
  const known = fronts.get(rows.length);
  const front = known ?? new Front(openFrontier(rows.length));
  if (!known) fronts.set(rows.length, front);
  front.restart(recording);
  const lastNeeded = needed.findLastIndex((n) => n !== null);
  // On a whole grid no walk gains by leaving the aisles between the outermost places.
  const first = plain ? needed.findIndex((n) => n !== null) : 0;
  const last = plain ? lastNeeded : columns.length - 1;
  for (let column = first; column <= last; column++) {
    const places = needed[column] ?? null;
    let at = 0;
    for (let row = 0; row < rows.length; row++) {
      const y = rows[row]!;
      if (places && places.ys[at] === y) {
        front.visit(row, places.odd.includes(y));
        at++;
      }
      if (row + 1 === rows.length) break;
      const begin = at;
      if (places) while (at < places.ys.length && places.ys[at]! < rows[row + 1]!) at++;
      optionsOf(network, column, row, places, begin, at, options);
      front.along(column, row, options, network, places, begin, at);
    }
    if (column === last) break;
    const gap = columns[column + 1]!.x - columns[column]!.x;
    for (let row = 0; row < rows.length; row++)
      front.across(column, row, gap, rows[row]!, across[row]![column]!, column >= lastNeeded);
  }
  return front.end();
}

/** The states reached so far, each with the shortest way to it. Kept from sweep to sweep, so that nothing is allocated again. */
class Front {
  private readonly frontier: Frontier;
  private recording = false;
  private taken: Taken[] = [];
  private states = new Int32Array(64);
  private costs = new Float64Array(64);
  private count = 0;
  private nextStates = new Int32Array(64);
  private nextCosts = new Float64Array(64);
  private from = new Int32Array(64);
  private how = new Int32Array(64);
  /** Where a state stands among those reached, -1 where it does not. */
  private slots = new Int32Array(64).fill(-1);

  constructor(frontier: Frontier) {
    this.frontier = frontier;
  }

  restart(recording: boolean): void {
    this.recording = recording;
    this.taken = [];
    this.states[0] = this.frontier.begin;
    this.costs[0] = 0;
    this.count = 1;
  }

  /** Room for every state there is; more may have appeared. */
  private makeRoom(): void {
    if (this.frontier.count() <= this.slots.length) return;
    const size = 2 * this.frontier.count();
    const longer = (list: Int32Array<ArrayBuffer>, fill = 0) => {
      const made = new Int32Array(size).fill(fill);
      made.set(list);
      return made;
    };
    const costs = (list: Float64Array<ArrayBuffer>) => {
      const made = new Float64Array(size);
      made.set(list);
      return made;
    };
    this.slots = longer(this.slots, -1);
    [this.states, this.nextStates] = [longer(this.states), longer(this.nextStates)];
    [this.from, this.how] = [longer(this.from), longer(this.how)];
    [this.costs, this.nextCosts] = [costs(this.costs), costs(this.nextCosts)];
  }

  private turn(reached: number, edges: Taken['edges']): void {
    const { nextStates, slots } = this;
    for (let i = 0; i < reached; i++) slots[nextStates[i]!] = -1;
    this.nextStates = this.states;
    this.states = nextStates;
    const costs = this.costs;
    this.costs = this.nextCosts;
    this.nextCosts = costs;
    this.count = reached;
    if (this.recording) this.taken.push({ from: this.from.slice(0, reached), how: this.how.slice(0, reached), edges });
  }

  /**
   * One step: every state goes over into others, and of several ways to one the shortest stays. A step that meets a
   * transition for the first time learns it and starts over.
   */
  visit(row: number, odd: boolean): void {
    const { frontier, states, costs, count } = this;
    for (let i = 0; i < count; i++) frontier.visit(states[i]!, row, odd);
    this.makeRoom();
    const { slots, nextStates, nextCosts, from } = this;
    let reached = 0;
    for (let i = 0; i < count; i++) {
      const to = frontier.visit(states[i]!, row, odd);
      if (to < 0) continue;
      const slot = slots[to]! < 0 ? reached++ : slots[to]!;
      if (slots[to]! >= 0 && nextCosts[slot]! <= costs[i]!) continue;
      slots[to] = slot;
      nextStates[slot] = to;
      nextCosts[slot] = costs[i]!;
      from[slot] = i;
    }
    this.turn(reached, noEdges);
  }

  along(
    column: number,
    row: number,
    options: Options,
    network: Network,
    places: Needed | null,
    begin: number,
    end: number,
  ): void {
    const { frontier, states, costs, slots, nextStates, nextCosts, from, how } = this;
    const { count, kind, metres } = options;
    const table = frontier.table();
    const { width } = frontier;
    let reached = 0;
    for (let i = 0; i < this.count; i++) {
      const base = states[i]! * width + row * 18;
      const cost = costs[i]!;
      for (let o = 0; o < count; o++) {
        const to = table[base + kind[o]!]!;
        if (to < 0) {
          if (to !== UNKNOWN) continue;
          this.forget(reached, (state) => {
            for (let k = 0; k < count; k++) frontier.along(state, row, kind[k]!);
          });
          return this.along(column, row, options, network, places, begin, end);
        }
        const sum = cost + metres[o]!;
        let slot = slots[to]!;
        if (slot < 0) {
          slot = reached++;
          slots[to] = slot;
          nextStates[slot] = to;
        } else if (sum >= nextCosts[slot]!) continue;
        nextCosts[slot] = sum;
        from[slot] = i;
        how[slot] = o;
      }
    }
    if (!this.recording) return this.turn(reached, noEdges);
    const [firsts, gaps] = [options.first.slice(), options.gap.slice()];
    this.turn(reached, (choice) => {
      const between = places?.ys.slice(begin, end) ?? [];
      const ys = [network.rows[row]!, ...between, network.rows[row + 1]!];
      const times = timesAlong(between, places?.odd ?? [], firsts[choice]!, gaps[choice]!)!;
      return times.flatMap((t, e) =>
        t === 0 ? [] : [{ from: { column, y: ys[e]! }, to: { column, y: ys[e + 1]! }, times: t }],
      );
    });
  }

  across(column: number, row: number, gap: number, y: number, open: boolean, mayEnd: boolean): void {
    const { frontier, states, costs, slots, nextStates, nextCosts, from, how } = this;
    const table = frontier.table();
    const { width, drops, closed } = frontier;
    let reached = 0;
    for (let i = 0; i < this.count; i++) {
      const state = states[i]!;
      const there = frontier.at(state, row);
      const dropped = there === 1 ? -1 : table[state * width + drops + row]!;
      if (dropped === UNKNOWN) {
        this.forget(reached, (one) => frontier.drop(one, row));
        return this.across(column, row, gap, y, open, mayEnd);
      }
      // Going on leaves a state as it is; what is untouched is so before and after.
      for (let times = open ? there : 0; ; times = 0) {
        const to = times > 0 ? state : dropped;
        if (to >= 0 && (to !== closed || mayEnd)) {
          const sum = costs[i]! + times * gap;
          let slot = slots[to]!;
          if (slot < 0) {
            slot = reached++;
            slots[to] = slot;
            nextStates[slot] = to;
            nextCosts[slot] = Infinity;
          }
          if (sum < nextCosts[slot]!) {
            nextCosts[slot] = sum;
            from[slot] = i;
            how[slot] = times;
          }
        }
        if (times === 0) break;
      }
    }
    if (!this.recording) return this.turn(reached, noEdges);
    this.turn(reached, (times) =>
      times === 0 ? nothing : [{ from: { column, y }, to: { column: column + 1, y }, times }],
    );
  }

  /** Gives a step up and learns its transitions from every state, so that it can start over. */
  private forget(reached: number, learn: (state: number) => void): void {
    for (let i = 0; i < reached; i++) this.slots[this.nextStates[i]!] = -1;
    for (let i = 0; i < this.count; i++) learn(this.states[i]!);
    this.makeRoom();
  }

  end(): Swept {
    let best = -1;
    let metres = Infinity;
    for (let i = 0; i < this.count; i++)
      if (this.frontier.whole(this.states[i]!) && this.costs[i]! < metres) [best, metres] = [i, this.costs[i]!];
    const edges: Edge[] = [];
    if (best >= 0)
      for (let at = best, step = this.taken.length - 1; step >= 0; step--) {
        const { from, how, edges: made } = this.taken[step]!;
        edges.push(...made(how[at]!));
        at = from[at]!;
      }
    return { metres, edges };
  }
}
