import { useTranslation } from 'react-i18next';
import type { OrderChange, OrdersChanged } from '@hand-relay/contract';
import type { Stage } from '@hand-relay/core/deciding/holds';
import { api, notify, useAppDispatch } from '../state/index.ts';

const looks = ['same', 'closed', 'since', 'underWay', 'labelled', 'tracked', 'inLoad', 'past'] as const;

/** Changes many orders at once; each act is told with its sum and taken back as one. All answer whether it was done. */
export function useChangeOrders() {
  const { t } = useTranslation();
  const send = useAppDispatch();
  const [change, changing] = api.useChangeOrdersMutation();
  const [hold, holding] = api.useHoldOrdersMutation();
  const [lift, lifting] = api.useLiftHoldsMutation();
  const [cancel, cancelling] = api.useCancelOrdersMutation();
  const [tag, tagging] = api.useTagOrdersMutation();
  const all = [changing, holding, lifting, cancelling, tagging];
  const reason = t('change.undone');
  return {
    busy: all.some((m) => m.isLoading),
    error: all.find((m) => m.error)?.error,
    /** What a change does or would do, in sentences. */
    sentences: (sums: OrdersChanged): string[] =>
      looks.flatMap((name) => (sums[name] > 0 ? [t(`change.look.${name}`, { count: sums[name] })] : [])),
    async change(orders: string[], set: OrderChange): Promise<boolean> {
      const { data } = await change({ mode: 'change', changes: [{ orders, set }] });
      if (!data) return false;
      send(
        notify({
          kind: 'done',
          text: t('change.done', { count: data.changed }),
          ...(data.undo.length > 0
            ? { undo: { name: 'changeOrders', body: { mode: 'change', changes: data.undo } } }
            : {}),
        }),
      );
      return true;
    },
    async hold(orders: string[], why: string, stops: Stage[]): Promise<boolean> {
      const { data } = await hold({ orders, reason: why, stops });
      if (!data) return false;
      send(
        notify({
          kind: 'done',
          text: t('change.held', { count: data.held }),
          ...(data.holds.length > 0 ? { undo: { name: 'liftHolds', body: { holds: data.holds, reason } } } : {}),
        }),
      );
      return true;
    },
    async lift(orders: string[], why: string): Promise<boolean> {
      const { data } = await lift({ orders, reason: why });
      if (!data) return false;
      const parts = [
        data.lifted > 0 ? t('change.lifted', { count: data.lifted }) : t('change.liftedNone'),
        ...(data.mayNot > 0 ? [t('change.mayNot', { count: data.mayNot })] : []),
      ];
      send(
        notify({
          kind: data.lifted > 0 ? 'done' : 'caution',
          text: parts.join(' '),
          ...(data.holds.length > 0 ? { undo: { name: 'restoreHolds', body: { holds: data.holds } } } : {}),
        }),
      );
      return true;
    },
    async cancel(orders: string[], why: string): Promise<boolean> {
      const { data } = await cancel({ orders, reason: why });
      if (!data) return false;
      send(
        notify({
          kind: data.cancelled > 0 ? 'done' : 'caution',
          text:
            data.cancelled > 0
              ? t('change.cancelled', {
                  units: t('unit.units', { count: data.units }),
                  orders: t('unit.orders', { count: data.cancelled }),
                })
              : t('change.cancelledNone'),
          ...(data.lines.length > 0 ? { undo: { name: 'restoreOrders', body: { lines: data.lines } } } : {}),
        }),
      );
      return true;
    },
    async tag(orders: string[], name: string, add: boolean): Promise<boolean> {
      const { data } = await tag({ orders, [add ? 'add' : 'remove']: [name] });
      if (!data) return false;
      const undo = { orders: data.orders, [add ? 'remove' : 'add']: [name] };
      send(
        notify({
          kind: 'done',
          text: t(add ? 'change.tagged' : 'change.untagged', { count: data.changed }),
          ...(data.changed > 0 ? { undo: { name: 'tagOrders', body: undo } } : {}),
        }),
      );
      return true;
    },
  };
}
