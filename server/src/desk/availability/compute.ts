import {
  allocateBeside,
  deskPolicies,
  goodUntil,
  servings,
  type DeskPolicy,
  type Serving,
} from '@hand-relay/core/deciding/allocation';
import type { Asker, LineAvailability, OrderAvailability, PolicyComparison } from '@hand-relay/contract';
import { compare, outlook, Reasons, served, type ItemOutlook } from '@hand-relay/core/deciding/availability';
import type { Solver } from '@hand-relay/core/solver';
import { Desk, type DeskProblem, type OrderValues } from './problem.ts';

/** Branches of the search for most orders, for each group. */
const NODES = 5000;

/** Orders of which nothing is open any more stay out, and so do those on hold: they ask for nothing. */
const deskOf = (text: string) => {
  const problem = JSON.parse(text) as DeskProblem;
  const open = problem.orders.filter(([, , , , , , , , , , lines]) => lines !== null);
  const isHeld = (order: OrderValues) => order[11];
  return {
    desk: new Desk({ ...problem, orders: open.filter((o) => !isHeld(o)) }),
    held: open.filter(isHeld).map(([id]) => id),
  };
};

export function computeOutlook(text: string): { orders: (string | number | null)[][]; short: ItemOutlook[] } {
  const { desk, held } = deskOf(text);
  const { orders, short } = outlook(desk.supply, desk.expected, desk.orders);
  const going = orders.map((o) => [
    o.order,
    o.readiness,
    o.sure.lines,
    o.sure.units,
    o.sure.value,
    o.could.lines,
    o.could.units,
    o.fullBy,
  ]);
  return { orders: [...going, ...held.map((id) => [id, 'held', 0, 0, 0, 0, 0, null])], short };
}

const isServing = (policy: DeskPolicy): policy is Serving => (servings as readonly string[]).includes(policy);

function decided(desk: Desk, policy: DeskPolicy, solver: Solver | null, seconds: number) {
  if (isServing(policy)) {
    const orders = served(desk.orders, policy, (order) => desk.heads.get(order)!);
    return allocateBeside(desk.settled, desk.supply, orders);
  }
  const begun = performance.now();
  const spent = () => (performance.now() - begun) / (seconds * 1000);
  const method =
    policy === 'most-orders'
      ? { policy, solver: solver!, effort: { seconds, nodes: NODES, seed: 1, spent } }
      : ({ policy } as const);
  return allocateBeside(desk.settled, desk.supply, desk.orders, method);
}

/** One order's promise: what is sure, what could be, what it gets by priority, and why. Null where nothing of it is open. */
export function computeOrder(text: string, id: string): OrderAvailability | null {
  const { desk } = deskOf(text);
  const order = desk.orders.find((o) => o.id === id);
  if (!order) return null;
  const { orders } = outlook(desk.supply, desk.expected, desk.orders);
  const own = orders.find((o) => o.order === id)!;
  const promises = new Map(decided(desk, 'priority', null, 0).promises.map((p) => [p.line, p]));
  const reasons = new Reasons(desk.supply, desk.orders, promises);
  const lines = order.lines.map((line, i): LineAvailability => {
    const manual = desk.settled.manual.get(line.id) ?? null;
    const { sure, could, fullBy } = own.lines[i]!;
    const why = reasons.of(order, line, manual !== null);
    return {
      line: line.id,
      asked: line.units,
      reserved: line.reserved,
      manual,
      sure,
      could,
      gets: promises.get(line.id)!.units,
      fullBy,
      reason: why.reason,
      takers: why.takers.map(({ order: other, units }) => {
        const { number, class: customerClass, due } = desk.heads.get(other)!;
        return { order: other, number, class: customerClass, due, units };
      }),
      tooOld: why.tooOld,
    };
  });
  return { readiness: own.readiness, sure: own.sure, could: own.could, fullBy: own.fullBy, lines };
}

/** Everybody who asks for an item, and what a policy gives them, in the order served. */
export async function computeItem(
  text: string,
  item: string,
  policy: DeskPolicy,
  openSolver: () => Promise<Solver>,
): Promise<Asker[]> {
  const { desk } = deskOf(text);
  const solver = policy === 'most-orders' ? await openSolver() : null;
  const promises = new Map(decided(desk, policy, solver, 1).promises.map((p) => [p.line, p]));
  const askers = desk.orders.flatMap((order) =>
    order.lines
      .filter((line) => line.item === item)
      .map((line): Asker => {
        const head = desk.heads.get(order.id)!;
        return {
          order: order.id,
          number: head.number,
          customer: head.customer,
          class: head.class,
          due: head.due,
          priority: order.priority,
          shipComplete: order.shipComplete,
          line: line.id,
          lineNumber: desk.lineNumbers.get(line.id)!,
          asked: line.units,
          reserved: line.reserved,
          manual: desk.settled.manual.get(line.id) ?? null,
          until: goodUntil(order, line),
          gets: promises.get(line.id)!.units,
          othersFull: order.lines.every((l) => l === line || promises.get(l.id)!.units >= l.units),
        };
      }),
  );
  const places = isServing(policy)
    ? served(desk.orders, policy, (order) => desk.heads.get(order)!).map((o) => [o.id, o.priority] as const)
    : askers.map((a) => [a.order, a.priority] as const);
  const placeOf = new Map(places);
  return askers.sort(
    (a, b) =>
      placeOf.get(a.order)! - placeOf.get(b.order)! ||
      (a.due < b.due ? -1 : a.due > b.due ? 1 : 0) ||
      (a.order < b.order ? -1 : 1),
  );
}

/** The policies side by side. */
export async function computeComparison(
  text: string,
  seconds: number,
  openSolver: () => Promise<Solver>,
): Promise<Omit<PolicyComparison, 'at'>> {
  const { desk } = deskOf(text);
  const solver = await openSolver();
  const results = deskPolicies.map((policy) => ({ policy, allocated: decided(desk, policy, solver, seconds) }));
  const { tallies, lines, sides } = compare(desk.orders, results, desk.today, (o) => desk.heads.get(o)!.class);
  return {
    orders: desk.orders.length,
    tallies,
    lines,
    sides: sides.map(({ order, complete }) => {
      const { number, customer, class: customerClass, due } = desk.heads.get(order)!;
      return { order, number, customer, class: customerClass, due, complete };
    }),
    going: results.map(({ allocated }) => [
      ...new Set(allocated.promises.filter((p) => p.units > 0).map((p) => p.order)),
    ]),
  };
}
