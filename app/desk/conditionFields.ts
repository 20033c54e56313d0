import { demandKinds } from '@hand-relay/core/handling/shipping';
import { readinesses } from '@hand-relay/core/deciding/availability';
import type { ConditionField, Values } from '@hand-relay/core/deciding/conditions';
import { pickersOf, shareOf, wavesOf, type Listed } from './listing.ts';

/** What conditions can be put on: everything that the list of orders shows. */
export const orderFields = [
  { name: 'number', kind: 'text' },
  { name: 'customer', kind: 'text' },
  { name: 'class', kind: 'choice' },
  { name: 'channel', kind: 'choice' },
  { name: 'kind', kind: 'choice', of: demandKinds },
  { name: 'reference', kind: 'text' },
  { name: 'city', kind: 'text' },
  { name: 'due', kind: 'date' },
  { name: 'departure', kind: 'text' },
  { name: 'carrier', kind: 'text' },
  { name: 'priority', kind: 'number' },
  { name: 'lines', kind: 'number' },
  { name: 'units', kind: 'number' },
  { name: 'reserved', kind: 'number' },
  { name: 'worth', kind: 'number' },
  { name: 'share', kind: 'number' },
  { name: 'ready', kind: 'choice', of: readinesses },
  { name: 'sureLines', kind: 'number' },
  { name: 'sureUnits', kind: 'number' },
  { name: 'value', kind: 'number' },
  { name: 'fullBy', kind: 'date' },
  { name: 'tags', kind: 'text' },
  { name: 'service', kind: 'text' },
  { name: 'lane', kind: 'text' },
  { name: 'waves', kind: 'text' },
  { name: 'pickers', kind: 'text' },
] as const satisfies readonly ConditionField[];

/** The values of an order by these names; the value in whole units of money. */
export function orderValues(row: Listed): Values {
  return {
    number: row.number,
    customer: row.customer,
    class: row.customerClass,
    channel: row.channel,
    kind: row.kind,
    reference: row.reference,
    city: row.city,
    due: row.due,
    departure: row.departure,
    carrier: row.carrier,
    priority: row.priority,
    lines: row.lines,
    units: row.asked - row.released,
    reserved: row.reserved,
    worth: row.value / 100,
    share: shareOf(row) ?? undefined,
    ready: row.outlook?.readiness,
    sureLines: row.outlook?.sureLines,
    sureUnits: row.outlook?.sureUnits,
    value: row.outlook ? row.outlook.sureValue / 100 : undefined,
    fullBy: row.outlook?.fullBy,
    tags: row.tags,
    service: row.service,
    lane: row.lane,
    waves: wavesOf(row),
    pickers: pickersOf(row),
  };
}
