import type { z } from 'zod';
import type { quickResult } from '@hand-relay/contract';
import { i18n } from '../text/index.ts';

/** What became of orders that were confirmed: shipped, or where they wait. */
export function saidOf(
  { shipments, toPack }: z.infer<typeof quickResult>,
  all: { orders: number; units: number },
): string {
  const says = (key: 'done' | 'toPack' | 'atDock', orders: number, units: number) =>
    i18n.t(`quick.${key}`, {
      orders: i18n.t('unit.orders', { count: orders }),
      units: i18n.t('unit.units', { count: units }),
    });
  if (shipments.length > 0) return says('done', all.orders, all.units);
  const units = toPack.reduce((n, o) => n + o.units, 0);
  const atDock = all.orders - toPack.length;
  return [
    toPack.length > 0 && says('toPack', toPack.length, units),
    atDock > 0 && says('atDock', atDock, all.units - units),
  ]
    .filter(Boolean)
    .join(' ');
}
