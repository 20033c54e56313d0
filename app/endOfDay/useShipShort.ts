import { useState } from 'react';
import { useTranslation } from 'react-i18next';
import type { DayOpen } from '@hand-relay/contract';
import { api, notify, troubleOf, useAppDispatch, words } from '../state/index.ts';

/**
 * Ships what is packed of several orders and keeps the rest open, one after the other. A shipment that needs a number of
 * its carrier gets one first. What is refused is told with the reason, and the others go on.
 */
export function useShipShort() {
  const { t } = useTranslation();
  const send = useAppDispatch();
  const [track] = api.useTrackingMutation();
  const [confirm] = api.useConfirmMutation();
  const [done, setDone] = useState<number | null>(null);
  const shipOne = async (id: string) => {
    const first = await confirm({ id, rest: 'keep-open' });
    if (first.data || troubleOf(first.error).code !== 'tracking-missing') return first;
    const numbered = await track({ id, from: 'carrier' });
    return numbered.data ? confirm({ id, rest: 'keep-open' }) : numbered;
  };
  return {
    done,
    async ship(orders: readonly DayOpen[]): Promise<void> {
      const refused: string[] = [];
      let shipped = 0;
      setDone(0);
      for (const order of orders) {
        const answer = order.shipment && (await shipOne(order.shipment.id));
        if (answer?.data) shipped += 1;
        else if (answer?.error) refused.push(`${order.number}: ${words(troubleOf(answer.error))}`);
        setDone((n) => (n ?? 0) + 1);
      }
      setDone(null);
      if (shipped > 0) send(notify({ kind: 'done', text: t('day.shipped', { count: shipped }) }));
      for (const text of refused) send(notify({ kind: 'caution', text }));
    },
  };
}
