import type { BenchOrder, PackPlan } from '@hand-relay/contract';
import {
  packCommand,
  packCommands,
  packSteps,
  type PackInput,
  type PackSteps,
} from '@hand-relay/core/handling/packing';
import { readCode } from '@hand-relay/core/reading/codes';
import { useRouter } from 'expo-router';
import { api, thisYear, troubleOf, words } from '../state/index.ts';
import { i18n } from '../text/index.ts';
import { thisBench } from './BenchChoice.tsx';
import { useFindOrder } from './useFindOrder.ts';
import { useWeigh } from './useWeigh.ts';
import type { usePackInputs } from './usePackInputs.ts';

type Inputs = ReturnType<typeof usePackInputs>;

/** What is put in next by the plan of the carton in hand; null where it was packed otherwise. */
export function stepsOf({ bench }: BenchOrder, plan: PackPlan): PackSteps | null {
  const inside = new Map<string, number>();
  for (const { item, units } of bench.carton?.contents ?? []) inside.set(item, (inside.get(item) ?? 0) + units);
  const [next] = plan.cartons;
  return next && !plan.otherwise ? packSteps(placesOf(next), inside) : null;
}

/** What lies where in a planned carton; where a rule alone says what is in it, the units without places. */
const placesOf = ({ places, rule }: PackPlan['cartons'][number]): { item: string }[] =>
  places.length > 0 || !rule ? places : Array.from({ length: rule.units }, () => ({ item: rule.item }));

/** Whether a code names a cart, an order or a carton, in place of goods. */
function elsewhere(text: string): boolean {
  const code = readCode(text, thisYear());
  return ['cart', 'position', 'run', 'order'].includes(code.kind) || (code.kind === 'gs1' && code.sscc !== undefined);
}

/** What the plan of an order is asked with. */
export const planOf = (id: string, order: BenchOrder | undefined) => {
  const carton = order?.bench.carton?.id;
  return carton === undefined ? { id } : { id, carton };
};

/** The carton to open next: the one that the plan has after that in hand, or another of its kind; null where nothing waits. */
export function nextCarton({ bench }: BenchOrder, plan: PackPlan): string | null {
  if (bench.loose.length === 0) return null;
  if (!bench.carton || bench.carton.contents.length === 0) return plan.cartons[0]?.code ?? null;
  return plan.cartons[1]?.code ?? bench.carton.typeCode;
}

/** All units of the plan that are not in the carton yet, as inputs; serial numbers are scanned one by one. */
export function allIn({ bench }: BenchOrder, steps: PackSteps | null): PackInput[] {
  return (steps?.steps ?? []).flatMap((step) => {
    let units = step.of - step.inside;
    return bench.loose
      .filter((l) => l.item.id === step.item && l.serial === null)
      .flatMap((l): PackInput[] => {
        const some = Math.min(units, l.units);
        units -= some;
        return some > 0 ? [{ kind: 'put', item: step.item, lot: l.lot, units: some }] : [];
      });
  });
}

/**
 * What a scan at an order means beside goods and cartons: a command of the sheet, or, while no carton is open, a cart or
 * order that is packed instead.
 */
export function usePackCommands(id: string, { say, input, undo, command, readOrder }: Inputs) {
  const router = useRouter();
  const findOrder = useFindOrder();
  const [readQueue] = api.useLazyBenchQuery();
  const [readPlan] = api.useLazyPackPlanQuery();
  const [print] = api.usePrintMutation();
  const weigh = useWeigh({ say, command, readOrder });
  const refuse = (text: string) => say({ kind: 'refused', text });
  const show = (order: string) => router.navigate(`/bench/orders/${order}`);
  /** With the order as it is when the command's turn comes. */
  const now = (work: (order: BenchOrder, put: (what: PackInput) => Promise<void>) => Promise<void>) =>
    command(async (put) => {
      const order = await readOrder();
      return order ? work(order, put) : undefined;
    });

  const openProposed = () =>
    now(async (order, put) => {
      const { data, error } = await readPlan(planOf(id, order));
      if (error) return refuse(words(troubleOf(error)));
      const code = data ? nextCarton(order, data) : null;
      return code ? put({ kind: 'scan', text: code }) : refuse(i18n.t('refusal.nothing-to-pack'));
    });
  const putAll = () =>
    now(async (order, put) => {
      if (!order.bench.carton) return refuse(i18n.t('refusal.carton-first'));
      const { data, error } = await readPlan(planOf(id, order));
      if (error) return refuse(words(troubleOf(error)));
      const inputs = allIn(order, data ? stepsOf(order, data) : null);
      if (inputs.length === 0) return refuse(i18n.t('bench.nothingMore'));
      for (const one of inputs) await put(one);
    });
  const next = () =>
    now(async (order) => {
      const open = [order.bench.carton, ...order.bench.others].some((c) => c && c.contents.length > 0);
      if (open) return refuse(i18n.t('bench.closeFirst'));
      const { toLane } = order.bench;
      if (toLane) return refuse(i18n.t('bench.laneFirst', { lane: toLane.lane }));
      const { data: queue, error } = await readQueue();
      if (error) return refuse(words(troubleOf(error)));
      const runs = queue?.runs ?? [];
      // The cart in hand before any other.
      const mine = runs.filter((r) => r.orders.some((o) => o.id === id));
      const waiting = [...mine, ...runs].flatMap((r) => r.orders).find((o) => o.id !== id && o.packed < o.units);
      if (waiting) show(waiting.id);
      else router.navigate('/bench');
    });
  const printAgain = () =>
    now(async (order) => {
      const last = order.cartons.filter((c) => c.state === 'closed').at(-1);
      if (!last) return refuse(i18n.t('bench.nothingToPrint'));
      const done = await print({ kind: 'carton-label', of: last.id, station: thisBench(order.benches) });
      if (done.error) return refuse(words(troubleOf(done.error)));
      say({ kind: 'done', text: i18n.t('printing.sent', { printer: done.data.printer }) });
    });
  /** A cart or an order, which is packed instead while no carton is open. */
  const another = (text: string) =>
    now(async (order, put) => {
      const code = readCode(text, thisYear());
      const open = [order.bench.carton, ...order.bench.others].filter((c) => c !== null);
      const ours = code.kind === 'gs1' && open.some((c) => c.sscc === code.sscc);
      if (ours || (open.length > 0 && code.kind !== 'gs1')) return put({ kind: 'scan', text });
      const found = await findOrder(text);
      if ('wrong' in found) refuse(found.wrong);
      else if (open.length > 0) refuse(i18n.t('bench.closeFirst'));
      else show(found.order);
    });

  return (text: string): void => {
    switch (packCommand(text)) {
      case 'open':
        return openProposed();
      case 'all':
        return putAll();
      case 'undo':
        return undo();
      case 'weigh':
        return weigh();
      case 'print':
        return printAgain();
      case 'next':
        return next();
      case 'help':
        return say({ kind: 'caution', text: packCommands.map((c) => i18n.t(`bench.command.${c}`)).join(' · ') });
      default:
        return elsewhere(text) ? another(text) : input({ kind: 'scan', text });
    }
  };
}
