import type { LoadShare } from '@hand-relay/contract';
import { areaOf } from '@hand-relay/core/deciding/loads';

export interface Stop {
  stop: number;
  /** City and street. */
  at: string;
  shares: LoadShare[];
}

/** Orders of a load by their stop, the first delivered first. */
export function stopsIn(shares: readonly LoadShare[]): Stop[] {
  const stops = new Map<number, Stop>();
  for (const share of shares) {
    const stop = share.stop ?? 1;
    const one = stops.get(stop) ?? {
      stop,
      at: [share.postcode, share.city, share.street].filter(Boolean).join(', '),
      shares: [],
    };
    one.shares.push(share);
    stops.set(stop, one);
  }
  return [...stops.values()].sort((a, b) => a.stop - b.stop);
}

/** The present numbers of all stops after one moved by a place. */
export function movedStop(count: number, stop: number, by: -1 | 1): number[] {
  const order = Array.from({ length: count }, (_, i) => i + 1);
  const [from, to] = [stop - 1, stop - 1 + by];
  [order[from], order[to]] = [order[to]!, order[from]!];
  return order;
}

/** The present numbers of all stops, sorted by country, postcode and city. */
export function byPostcode(shares: readonly LoadShare[]): number[] {
  return stopsIn(shares)
    .map(({ stop, shares: [s] }) => ({ stop, key: `${s!.country} ${s!.postcode.replace(/\s/g, '')} ${s!.city}` }))
    .sort((a, b) => a.key.localeCompare(b.key, 'en', { numeric: true }))
    .map(({ stop }) => stop);
}

/** What puts stops back that were put into this order. */
export function putBack(stops: readonly number[]): number[] {
  const back: number[] = [];
  for (const [i, stop] of stops.entries()) back[stop - 1] = i + 1;
  return back;
}

export interface Area {
  /** Country and district of the postcode, which a choice of it is known by. */
  key: string;
  /** What people read: the district, or the city where there is no postcode. */
  name: string;
  cities: string[];
  orders: number;
  weightG: number;
  fits: number;
}

const nameOf = (s: LoadShare) => areaOf(s.postcode) || s.city;
/** The area that an order's goods go to. */
export const areaKey = (s: LoadShare): string => `${s.country} ${nameOf(s)}`;

/** Orders by the district of their postcode, as they follow each other in the country. */
export function areasIn(shares: readonly LoadShare[]): Area[] {
  const areas = new Map<string, Area>();
  for (const s of shares) {
    const key = areaKey(s);
    const one = areas.get(key) ?? { key, name: nameOf(s), cities: [], orders: 0, weightG: 0, fits: 0 };
    if (!one.cities.includes(s.city)) one.cities.push(s.city);
    one.orders++;
    one.weightG += s.weightG;
    if (s.fits) one.fits++;
    areas.set(key, one);
  }
  return [...areas.values()].sort((a, b) => a.key.localeCompare(b.key, 'en', { numeric: true }));
}
