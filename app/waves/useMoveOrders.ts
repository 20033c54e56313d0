import { useTranslation } from 'react-i18next';
import type { RunSummary } from '@hand-relay/contract';
import { api, notify, useAppDispatch } from '../state/index.ts';

/** Moves orders of runs that nobody has begun: to another run, to one of their own, back to the desk. */
export function useMoveOrders() {
  const { t } = useTranslation();
  const send = useAppDispatch();
  const [move, moving] = api.useMoveBetweenRunsMutation();
  const [add, adding] = api.useAddOrdersMutation();
  const [takeOut, taking] = api.useTakeOutMutation();
  return {
    error: moving.error ?? adding.error ?? taking.error,
    busy: moving.isLoading || adding.isLoading || taking.isLoading,
    /** Answers with the run that has them now; null where it was refused. */
    async move(from: RunSummary, orders: string[], to: RunSummary | null): Promise<string | null> {
      const done = await move({ id: from.id, orders, run: to?.id ?? null });
      if (!done.data) return null;
      const { run } = done.data;
      const emptied = orders.length >= from.orders;
      send(
        notify({
          kind: 'done',
          text: t(to ? 'board.moved' : 'board.split', {
            count: orders.length,
            from: from.number,
            run: to?.number ?? '',
          }),
          // A run that was emptied is given up: there is nothing to go back to.
          ...(emptied ? {} : { undo: { name: 'moveBetweenRuns', id: run, body: { orders, run: from.id } } }),
        }),
      );
      return run;
    },
    async add(run: RunSummary, orders: string[]): Promise<boolean> {
      const done = await add({ id: run.id, orders });
      if (done.data) send(notify({ kind: 'done', text: t('board.added', { count: orders.length, run: run.number }) }));
      return done.data !== undefined;
    },
    async takeOut(run: RunSummary, orders: string[]): Promise<void> {
      for (const order of orders) if ((await takeOut({ id: run.id, order })).error) return;
      send(
        notify({
          kind: 'done',
          text: t('board.takenOut', { count: orders.length, run: run.number }),
          // A run that is emptied is given up: there is nothing to go back to.
          ...(orders.length < run.orders ? { undo: { name: 'putIn', id: run.id, body: { orders } } } : {}),
        }),
      );
    },
  };
}
