import type { Aisle, Floor } from '../../walking/floor/index.ts';
import type { Row } from './column.ts';

/** A floor told in a few numbers: parallel aisles with bays on one or both sides, levels in each bay. */
export interface FloorPattern {
  /** The first aisle's name: a letter goes on with the next letters, a number with the next numbers. */
  firstAisle: string;
  aisles: number;
  /** Where the first aisle's centre line runs, metres; behind the last aisle there is where it is left out. */
  startX?: number | undefined;
  /** Bays along one side of an aisle. */
  bays: number;
  levels: number;
  sides: 1 | 2;
  /** Metres along the aisle that a bay takes. */
  bayMetres: number;
  /** Metres from one aisle's centre line to the next. */
  aisleMetres: number;
  /** Bays after which a cross aisle cuts through; 0 for none but at both ends. A floor that is there keeps its own. */
  crossEvery: number;
  /** Metres that a cross aisle takes. */
  crossMetres: number;
  /** {aisle}, {bay} with two digits and {level}: how a bin is named. */
  naming: string;
  /** The zone of the first aisle and of all that follow it, up to one that `zonesFrom` names. */
  zone: string;
  /** Aisles from which on another zone begins. */
  zonesFrom?: { aisle: string; zone: string }[] | undefined;
}

/** A bin that is there already. */
export interface BinThere {
  bin: string;
  aisle: string;
  /** Metres along the aisle. */
  y: number;
}

export interface MadeFloor {
  /** The new aisles, and every cross aisle of the floor as it is with them. */
  floor: Floor;
  /** Rows of the sheet of bins. */
  bins: Row[];
}

/** A floor with no aisle, on which everything is new. */
const NO_FLOOR: Floor = { aisles: [], crossAisles: [] };
/** Metres within which two lines are one. */
const SAME = 0.01;

/**
 * Makes aisles and bins of a pattern, beside those that are there. Bays count along the aisle; with two sides odd bays
 * are on the left and even ones on the right. Making the same again is no fault: what is there already stays.
 *
 * @param there the floor as it is; new aisles begin behind its last one and leave room for its cross aisles
 * @param binsThere its bins, by which overlaps are found
 * @throws RangeError naming the number that cannot be; when two bins would have one name; or when a new aisle would lie
 *   on one that is there
 */
export function makeFloor(
  pattern: FloorPattern,
  there: Floor = NO_FLOOR,
  binsThere: readonly BinThere[] = [],
): MadeFloor {
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
  const startX = pattern.startX ?? startBehind(there, pattern.aisleMetres, names[0]);
  if (!(startX >= -1000 && startX <= 10_000))
    throw new RangeError(`startX must lie between -1000 and 10000, received ${startX}.`);
  const { places, crossAisles } = along(pattern, there.aisles.length > 0 ? there.crossAisles : null);
  const aisles: Aisle[] = names.map((id, i) => ({ id, x: round(startX + i * pattern.aisleMetres) }));
  const zones = zonesOf(names, pattern);
  const bins: Row[] = aisles.flatMap(({ id: aisle, x }, a) =>
    places.flatMap((y, column) =>
      Array.from({ length: pattern.sides }, (_, side) =>
        Array.from({ length: pattern.levels }, (__, level) => ({
          bin: pattern.naming
            .replaceAll('{aisle}', aisle)
            .replaceAll('{bay}', String(column * pattern.sides + side + 1).padStart(2, '0'))
            .replaceAll('{level}', String(level + 1))
            .toUpperCase(),
          zone: zones[a]!,
          aisle,
          aisle_x_m: Math.round(x * 100),
          y_m: Math.round(y * 100),
          side: side === 0 ? 'left' : 'right',
          level: level + 1,
        })),
      ).flat(),
    ),
  );
  const seen = new Set<unknown>();
  for (const { bin } of bins) {
    if (seen.has(bin))
      throw new RangeError(`naming must tell bins apart, received "${pattern.naming}": ${bin} is twice.`);
    seen.add(bin);
  }
  mustFit(aisles, bins, pattern.aisleMetres, there, binsThere);
  return { floor: { aisles, crossAisles }, bins };
}

/**
 * The x, in metres, at which aisles go on behind those of a floor: half their own width and half of the last one's
 * behind it. A first aisle that is there already stays where it is.
 */
function startBehind(there: Floor, aisleMetres: number, first: string | undefined): number {
  const same = there.aisles.find((a) => a.id === first);
  if (same) return same.x;
  const last = there.aisles.reduce<Aisle | null>((best, a) => (best && best.x >= a.x ? best : a), null);
  return last ? round(last.x + halfOf(last, there, aisleMetres) + aisleMetres / 2) : 0;
}

/** Half of what an aisle and the racks at both its sides take: half the way to the next aisle. */
function halfOf(aisle: Aisle, { aisles }: Floor, otherwise: number): number {
  const ways = aisles.filter((a) => a.id !== aisle.id).map((a) => Math.abs(a.x - aisle.x));
  return ways.length === 0 ? otherwise / 2 : Math.min(...ways) / 2;
}

/** The name with which aisles go on behind those of a floor: after Q comes R, after 07 comes 08; A on an empty one. */
export function nextAisle({ aisles }: Floor): string {
  const last = [...aisles].sort((a, b) => a.x - b.x).findLast((a) => /^(\d{1,4}|[A-Z]{1,2})$/.test(a.id));
  if (!last) return 'A';
  const there = new Set(aisles.map((a) => a.id));
  return aisleNames(last.id, aisles.length + 1).find((name) => !there.has(name))!;
}

/** @throws RangeError when a new aisle or bin would lie on one that is there, or takes its name */
function mustFit(
  aisles: readonly Aisle[],
  bins: readonly Row[],
  aisleMetres: number,
  there: Floor,
  binsThere: readonly BinThere[],
): void {
  const made = new Map(bins.map((b) => [b['bin'], b]));
  const isMade = ({ bin, aisle, y }: BinThere) => {
    const row = made.get(bin);
    return row?.['aisle'] === aisle && Math.abs(Number(row['y_m']) / 100 - y) < SAME;
  };
  const next = `Start with ${nextAisle(there)}.`;
  const own = new Set(aisles.map((a) => a.id));
  for (const old of there.aisles) {
    const same = aisles.find((a) => a.id === old.id);
    const others = binsThere.filter((b) => b.aisle === old.id && !isMade(b));
    if (same && Math.abs(same.x - old.x) > SAME)
      throw new RangeError(`Aisle ${old.id} exists already, ${old.x} m across. ${next}`);
    if (same && others.length > 0)
      throw new RangeError(`Aisle ${old.id} exists already, with other bins such as ${others[0]!.bin}. ${next}`);
    if (same) continue;
    const near = aisles.find((a) => Math.abs(a.x - old.x) < aisleMetres / 2 + halfOf(old, there, aisleMetres) - SAME);
    if (near)
      throw new RangeError(
        `Aisle ${near.id} at ${near.x} m would lie on aisle ${old.id} at ${old.x} m: move the start.`,
      );
  }
  const taken = binsThere.find((b) => made.has(b.bin) && !own.has(b.aisle));
  if (taken)
    throw new RangeError(`Bin ${taken.bin} exists already, in aisle ${taken.aisle}: change how bins are named.`);
}

function zonesOf(names: readonly string[], { zone, zonesFrom = [] }: FloorPattern): string[] {
  const from = new Map(zonesFrom.map((z) => [z.aisle.trim().toUpperCase(), z.zone]));
  for (const aisle of from.keys())
    if (!names.includes(aisle)) throw new RangeError(`zonesFrom names aisle ${aisle}, which is none of the new ones.`);
  let at = zone;
  return names.map((name) => (at = from.get(name) ?? at));
}

/**
 * Where each bay's middle lies along an aisle, and where the cross aisles' centre lines run. Cross aisles that are
 * there keep their place, and bays leave room for them.
 */
function along(
  { bays, bayMetres, crossEvery, crossMetres }: FloorPattern,
  there: readonly number[] | null,
): { places: number[]; crossAisles: number[] } {
  const places: number[] = [];
  if (there) {
    const last = there.at(-1)!;
    let at = there[0]! + crossMetres / 2;
    for (let bay = 0; bay < bays; bay++) {
      for (const row of there)
        if (row > there[0]! && at < row + crossMetres / 2 && at + bayMetres > row - crossMetres / 2)
          at = row + crossMetres / 2;
      places.push(round(at + bayMetres / 2));
      at += bayMetres;
    }
    const end = round(at + crossMetres / 2);
    return { places, crossAisles: places.at(-1)! > last ? [...there, end] : [...there] };
  }
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
