import { api } from './api.ts';
import { useMay } from './me.ts';

/** How many exceptions wait for somebody; none for whoever may not see orders. */
export function useOpenExceptions(): number {
  const may = useMay('orders.see');
  const { data } = api.useExceptionsQuery(undefined, { skip: !may });
  return data?.exceptions.filter((e) => e.settled === null).length ?? 0;
}
