import type { SheetName } from '@hand-relay/core/reading/sheets';
import { bins, places, zones } from './floor.ts';
import { items, stock } from './goods.ts';
import type { Kind } from './kind.ts';
import { carts } from './carts.ts';
import { channels, classes } from './demand.ts';
import { packrules } from './packRules.ts';
import { people, roles } from './people.ts';
import { printers } from './printers.ts';
import { roster } from './roster.ts';
import { shelf, supply } from './supply.ts';
import { timetable } from './timetable.ts';
import { carriers, cartons, customers, departures, pallets, vehicles } from './shipping.ts';

export const kinds: Record<SheetName, Kind> = {
  zones,
  bins,
  items,
  stock,
  channels,
  classes,
  customers,
  shelf,
  supply,
  places,
  carriers,
  departures,
  timetable,
  cartons,
  packrules,
  pallets,
  vehicles,
  carts,
  people,
  roles,
  roster,
  printers,
};
export type { Kind } from './kind.ts';
