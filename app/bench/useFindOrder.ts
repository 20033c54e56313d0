import { api, troubleOf, words } from '../state/index.ts';
import { i18n } from '../text/index.ts';

/** Which order a scan of a cart, one of its places, a run or an order means at the bench: the next of it that waits. */
export function useFindOrder() {
  const [find] = api.useLazyFindQuery();
  const [readQueue] = api.useLazyBenchQuery();
  return async (code: string): Promise<{ order: string } | { wrong: string }> => {
    const { data: found, error } = await find({ code });
    if (error) return { wrong: words(troubleOf(error)) };
    if (found?.kind === 'void') return { wrong: i18n.t('scan.void', { name: found.name }) };
    const { data: queue } = await readQueue();
    const waiting = new Set(queue?.runs.flatMap((r) => r.orders.filter((o) => o.packed < o.units).map((o) => o.id)));
    const order = found?.orders.find((o) => waiting.has(o)) ?? found?.orders[0];
    return order ? { order } : { wrong: i18n.t('scan.nothing', { code }) };
  };
}
