import type { Floor } from '../floor/index.ts';
import type { Row } from './column.ts';

/** A floor told in a few numbers: parallel aisles with bays on one or both sides, levels in each bay. */
export interface FloorPattern {
  /** The first aisle's name: a letter goes on with the next letters, a number with the next numbers. */
  firstAisle: string;
  aisles: number;
  /** Bays along one side of an aisle. */
  bays: number;
  levels: number;
  sides: 1 | 2;
  /** Metres along the aisle that a bay takes. */
  bayMetres: number;
  /** Metres from one aisle's centre line to the next. */
  aisleMetres: number;
  /** Bays after which a cross aisle cuts through; 0 for none but at both ends. */
  crossEvery: number;
  /** Metres that a cross aisle takes. */
  crossMetres: number;
  /** {aisle}, {bay} with two digits and {level}: how a bin is named. */
  naming: string;
  zone: string;
}

export interface MadeFloor {
  floor: Floor;
  /** Rows of the sheet of bins. */
  bins: Row[];
}

/**
 * Makes floor and bins of a pattern. Bays count along the aisle; with two sides odd bays stand left and even ones
 * right.
 *
 * @throws RangeError naming the number that cannot be, or when two bins would have one name
 */
export function makeFloor(pattern: FloorPattern): MadeFloor {
  for (const [name, least, most] of [
    ['aisles', 1, 200],
    ['bays', 1, 300],
    ['levels', 1, 20],
    ['sides', 1, 2],
    ['bayMetres', 0.1, 20],
    ['aisleMetres', 0.5, 50],
    ['crossEvery', 0, 300],
    ['crossMetres', 0.5, 20],
  ] as const)
    if (!(pattern[name] >= least && pattern[name] <= most))
      throw new RangeError(`${name} must lie between ${least} and ${most}, received ${pattern[name]}.`);
  const names = aisleNames(pattern.firstAisle, pattern.aisles);
  const { places, crossAisles } = along(pattern);
  const bins: Row[] = [];
  names.forEach((aisle, a) => {
    for (let column = 0; column < pattern.bays; column++)
      for (let side = 0; side < pattern.sides; side++)
        for (let level = 1; level <= pattern.levels; level++) {
          const bay = column * pattern.sides + side + 1;
          bins.push({
            bin: pattern.naming
              .replaceAll('{aisle}', aisle)
              .replaceAll('{bay}', String(bay).padStart(2, '0'))
              .replaceAll('{level}', String(level))
              .toUpperCase(),
            zone: pattern.zone,
            aisle,
            aisle_x_m: Math.round(a * pattern.aisleMetres * 100),
            y_m: Math.round(places[column]! * 100),
            side: side === 0 ? 'left' : 'right',
            level,
          });
        }
  });
  const seen = new Set<unknown>();
  for (const { bin } of bins) {
    if (seen.has(bin))
      throw new RangeError(`naming must tell bins apart, received "${pattern.naming}": ${bin} is twice.`);
    seen.add(bin);
  }
  return {
    floor: {
      aisles: names.map((id, i) => ({ id, x: Math.round(i * pattern.aisleMetres * 100) / 100 })),
      crossAisles,
    },
    bins,
  };
}

/** Where each bay's middle lies along an aisle, and where the cross aisles' centre lines run. */
function along({ bays, bayMetres, crossEvery, crossMetres }: FloorPattern): {
  places: number[];
  crossAisles: number[];
} {
  const places: number[] = [];
  const crossAisles = [0];
  let at = crossMetres / 2;
  for (let bay = 0; bay < bays; bay++) {
    if (crossEvery > 0 && bay > 0 && bay % crossEvery === 0) {
      crossAisles.push(round(at + crossMetres / 2));
      at += crossMetres;
    }
    places.push(round(at + bayMetres / 2));
    at += bayMetres;
  }
  crossAisles.push(round(at + crossMetres / 2));
  return { places, crossAisles };
}

const round = (metres: number) => Math.round(metres * 100) / 100;

function aisleNames(first: string, count: number): string[] {
  const start = first.trim().toUpperCase();
  if (/^\d{1,4}$/.test(start))
    return Array.from({ length: count }, (_, i) => String(Number(start) + i).padStart(start.length, '0'));
  if (!/^[A-Z]{1,2}$/.test(start))
    throw new RangeError(`firstAisle must be one or two letters or a number, received "${first}".`);
  const number = (text: string) => [...text].reduce((n, c) => n * 26 + c.charCodeAt(0) - 64, 0);
  const letters = (n: number): string =>
    n === 0 ? '' : letters(Math.floor((n - 1) / 26)) + String.fromCharCode(65 + ((n - 1) % 26));
  return Array.from({ length: count }, (_, i) => letters(number(start) + i));
}
