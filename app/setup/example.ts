import { awaited, freshProgress, target, type PickProgress, type PickStep } from '@hand-relay/core/handling/picking';
import type { PickSettings } from '@hand-relay/core/deciding/settings';
import { i18n } from '../text/index.ts';

const example: Omit<PickStep, 'how'> = {
  id: 'example',
  bin: 'B-07-2',
  item: {
    id: 'example',
    sku: '',
    name: '',
    packs: [{ gtin: '', level: 'unit', units: 1 }],
    tracksLot: true,
    tracksSerial: false,
  },
  lot: 'A4802',
  serialsInBin: [],
  units: 3,
  position: { cart: 'CART-07', number: 4 },
  carton: null,
  otherLots: [],
  elsewhere: [],
  bestBefore: null,
  stopped: null,
};

/** The carton of the example: begun already. */
const carton = { sscc: '395212340000000014', box: '', boxes: [], others: [], prefix: '3' };

/** What a picker is asked at an example pick of three units of a lot, in order, worked out by the floor's own rules. */
export function scansOf(how: PickSettings): string[] {
  const step: PickStep = { ...example, how, carton: how.drop === 'carton' ? carton : null };
  let progress: PickProgress = freshProgress;
  const asks: string[] = [];
  for (;;) {
    const [first, ...others] = awaited(step, progress);
    if (first === undefined) return asks;
    if (first === 'bin') {
      const either = others.length > 0 ? 'binOrItem' : 'bin';
      asks.push(i18n.t(`settings.ask.${either}`, { bin: step.bin }));
      progress = { ...progress, bin: true };
    } else if (first === 'lot') {
      asks.push(i18n.t('settings.ask.lot', { lot: step.lot }));
      progress = { ...progress, lot: true };
    } else if (first === 'carton') {
      asks.push(i18n.t('settings.ask.carton'));
      return asks;
    } else if (first === 'position') {
      asks.push(i18n.t('settings.ask.position', { position: `${step.position.cart}-${step.position.number}` }));
      return asks;
    } else {
      asks.push(i18n.t(`settings.ask.item.${how.counting}`, { units: target(step, progress) }));
      progress = { ...progress, counted: target(step, progress) };
    }
  }
}
