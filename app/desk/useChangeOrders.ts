import { useState } from 'react';
import { useTranslation } from 'react-i18next';
import type { OrderChange, OrdersChanged } from '@hand-relay/contract';
import type { Stage } from '@hand-relay/core/deciding/holds';
import { api, notify, useAppDispatch, type Call, type Notice } from '../state/index.ts';
import { partsOf, summed } from './parts.ts';

const looks = ['same', 'closed', 'since', 'underWay', 'labelled', 'tracked', 'inLoad', 'past'] as const;
export type ChangeSums = Omit<OrdersChanged, 'undo'>;

type Told = Pick<Notice, 'kind' | 'text'> & { undo: Call[] };
interface Answer<A> {
  data?: A | undefined;
}

/**
 * Changes many orders, some at a time, so that scans go on meanwhile; each act is told with its sum and taken back as
 * one. All answer whether it was done to the end.
 */
export function useChangeOrders() {
  const { t } = useTranslation();
  const send = useAppDispatch();
  const [change, changing] = api.useChangeOrdersMutation();
  const [hold, holding] = api.useHoldOrdersMutation();
  const [lift, lifting] = api.useLiftHoldsMutation();
  const [cancel, cancelling] = api.useCancelOrdersMutation();
  const [tag, tagging] = api.useTagOrdersMutation();
  /** How many of the orders are done; null while nothing is under way. */
  const [done, setDone] = useState<number | null>(null);
  const all = [changing, holding, lifting, cancelling, tagging];
  const reason = t('change.undone');

  const act = async <A>(
    orders: string[],
    ask: (part: string[]) => Promise<Answer<A>>,
    tell: (answers: A[]) => Told,
  ): Promise<boolean> => {
    const parts = partsOf(orders);
    const answers: A[] = [];
    setDone(0);
    for (const part of parts) {
      const { data } = await ask(part);
      // What is done stays done, and is told with the key that takes it back.
      if (!data) break;
      answers.push(data);
      setDone((n) => (n ?? 0) + part.length);
    }
    setDone(null);
    if (answers.length > 0) {
      const { undo, ...told } = tell(answers);
      send(notify({ ...told, ...(undo.length > 0 ? { undo } : {}) }));
    }
    return answers.length === parts.length;
  };

  return {
    busy: done !== null,
    done,
    error: all.find((m) => m.error)?.error,
    /** What a change does or would do, in sentences. */
    sentences: (sums: ChangeSums): string[] =>
      looks.flatMap((name) => (sums[name] > 0 ? [t(`change.look.${name}`, { count: sums[name] })] : [])),
    change: (orders: string[], set: OrderChange) =>
      act(
        orders,
        (part) => change({ mode: 'change', changes: [{ orders: part, set }] }),
        (answers) => ({
          kind: 'done',
          text: t('change.done', { count: summed(answers).changed }),
          undo: answers
            .filter((a) => a.undo.length > 0)
            .map((a) => ({ name: 'changeOrders', body: { mode: 'change', changes: a.undo } })),
        }),
      ),
    hold: (orders: string[], why: string, stops: Stage[]) =>
      act(
        orders,
        (part) => hold({ orders: part, reason: why, stops }),
        (answers) => ({
          kind: 'done',
          text: t('change.held', { count: summed(answers).held }),
          undo: answers
            .filter((a) => a.holds.length > 0)
            .map((a) => ({ name: 'liftHolds', body: { holds: a.holds, reason } })),
        }),
      ),
    lift: (orders: string[], why: string) =>
      act(
        orders,
        (part) => lift({ orders: part, reason: why }),
        (answers) => {
          const { lifted, mayNot } = summed(answers);
          return {
            kind: lifted > 0 ? 'done' : 'caution',
            text: [
              lifted > 0 ? t('change.lifted', { count: lifted }) : t('change.liftedNone'),
              ...(mayNot > 0 ? [t('change.mayNot', { count: mayNot })] : []),
            ].join(' '),
            undo: answers
              .filter((a) => a.holds.length > 0)
              .map((a) => ({ name: 'restoreHolds', body: { holds: a.holds } })),
          };
        },
      ),
    cancel: (orders: string[], why: string) =>
      act(
        orders,
        (part) => cancel({ orders: part, reason: why }),
        (answers) => {
          const { cancelled, units } = summed(answers);
          const told = {
            units: t('unit.units', { count: units }),
            orders: t('unit.orders', { count: cancelled }),
          };
          return {
            kind: cancelled > 0 ? 'done' : 'caution',
            text: cancelled > 0 ? t('change.cancelled', told) : t('change.cancelledNone'),
            undo: answers
              .filter((a) => a.lines.length > 0)
              .map((a) => ({ name: 'restoreOrders', body: { lines: a.lines } })),
          };
        },
      ),
    tag: (orders: string[], name: string, add: boolean) =>
      act(
        orders,
        (part) => tag({ orders: part, [add ? 'add' : 'remove']: [name] }),
        (answers) => ({
          kind: 'done',
          text: t(add ? 'change.tagged' : 'change.untagged', { count: summed(answers).changed }),
          undo: answers
            .filter((a) => a.changed > 0)
            .map((a) => ({ name: 'tagOrders', body: { orders: a.orders, [add ? 'remove' : 'add']: [name] } })),
        }),
      ),
  };
}
