import type { RunPick } from '@hand-relay/contract';
import { usualSettings } from '@hand-relay/core/deciding/settings';
import { freshProgress } from '@hand-relay/core/handling/picking';

/** A pick of a run as the server tells it: twelve jars from A-01-1 into place 3, nothing of it done. */
export const aPick = (
  more: Partial<RunPick> = {},
  step: Partial<RunPick['step']> = {},
  progress: Partial<RunPick['progress']> = {},
): RunPick => ({
  step: {
    id: 'p1',
    bin: 'A-01-1',
    item: {
      id: 'i1',
      sku: 'JR-001',
      name: 'Jar',
      packs: [
        { gtin: '09521234001010', level: 'unit', units: 1 },
        { gtin: '19521234001017', level: 'inner', units: 6 },
        { gtin: '29521234001014', level: 'outer', units: 48 },
      ],
      tracksLot: false,
      tracksSerial: false,
    },
    lot: null,
    serialsInBin: [],
    units: 12,
    position: { cart: 'CART-01', number: 3 },
    carton: null,
    how: usualSettings.picking.many,
    otherLots: [],
    elsewhere: [],
    bestBefore: null,
    stopped: null,
    ...step,
  },
  progress: { ...freshProgress, ...progress },
  state: 'open',
  picked: 0,
  order: { id: 'o1', number: 'LA-0001', note: '', hold: null },
  lineNote: '',
  askedIn: 'unit',
  unit: 'jar',
  picture: '',
  zone: 'Glass',
  cold: false,
  bestBefore: null,
  why: 'only',
  saves: 0,
  remains: 4,
  together: false,
  confirmedAt: null,
  lookAlike: null,
  at: { aisle: 'A', y: 1 },
  ...more,
});
