import type { OutlookRow } from '@hand-relay/contract';
import type { Readiness } from '@hand-relay/core/deciding/availability';
import { i18n, dayName } from '../text/index.ts';
import { Signal, type SignalKind } from '../ui/index.ts';

const signals: Record<Readiness, SignalKind> = {
  goes: 'done',
  choose: 'caution',
  part: 'quiet',
  waits: 'quiet',
  short: 'refused',
  held: 'refused',
};

/** How far an order can go, with the day on which the rest can where no choice brings it sooner. */
export function ReadyMark({ row, timeZone, now }: { row: OutlookRow; timeZone: string; now: number }) {
  const word = i18n.t(`ready.${row.readiness}`);
  const until =
    row.fullBy && (row.readiness === 'waits' || row.readiness === 'part') ? dayName(row.fullBy, timeZone, now) : '';
  const text = until ? i18n.t('ready.until', { word, day: until }) : word;
  return <Signal kind={signals[row.readiness]} text={text} />;
}
