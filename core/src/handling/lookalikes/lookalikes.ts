import { distance } from 'fastest-levenshtein';

/** An item as the eye and the hand know it. */
export interface Goods {
  id: string;
  name: string;
  sizeMm: readonly [number, number, number];
  picture: string;
  /** GTINs of its packs, 14 digits each. */
  gtins: readonly string[];
}

/** Why two items are taken for one another. */
export const likenesses = ['name', 'size', 'picture', 'gtin', 'caught'] as const;
export type Likeness = (typeof likenesses)[number];

export interface LookAlike {
  item: string;
  /** From 0 to 1: the higher the easier. */
  score: number;
  why: Likeness[];
  /** What tells the two apart, in a few words of their own; empty where nothing on them does. */
  this: string;
  other: string;
}

/** Shares of the score, by what is alike (common practice, no source). */
const SHARE = { name: 0.55, size: 0.2, picture: 0.15, gtin: 0.1 } as const;
/** Each error that was caught before weighs as much as half a name; two of them are enough by themselves. */
const CAUGHT = 0.35;
const ENOUGH = 0.55;
/** Names that differ by more are told apart by themselves. */
const LIKE_NAMES = 0.6;
/** Sides that differ by less look the same at arm's length. */
const LIKE_SIDES = 0.12;
/** Digits in which two GTINs may differ and be misread for one another. */
const LIKE_DIGITS = 2;

/**
 * Those among others that are easily taken for an item: by name (edit distance after Levenshtein 1966), size, picture,
 * numbers that differ in a digit or two, and errors that scans have caught before. The likest first.
 *
 * @param caught how often scans caught somebody with the other in hand
 */
export function lookAlikes(item: Goods, others: readonly Goods[], caught: (other: string) => number): LookAlike[] {
  return others
    .filter((o) => o.id !== item.id)
    .flatMap((other) => {
      const errors = caught(other.id);
      const alike: Record<Exclude<Likeness, 'caught'>, number> = {
        name: nameLikeness(item.name, other.name),
        size: sizeLikeness(item.sizeMm, other.sizeMm),
        picture: item.picture !== '' && item.picture === other.picture ? 1 : 0,
        gtin: item.gtins.some((a) => other.gtins.some((b) => differing(a, b) <= LIKE_DIGITS)) ? 1 : 0,
      };
      const namesDiffer = alike.name < LIKE_NAMES;
      const sum = (Object.keys(SHARE) as (keyof typeof SHARE)[]).reduce((n, k) => n + SHARE[k] * alike[k], 0);
      const score = Math.min(1, (namesDiffer ? 0 : sum) + CAUGHT * errors);
      if (score < ENOUGH) return [];
      const why: Likeness[] = likenesses.filter((l) =>
        l === 'caught' ? errors > 0 : l === 'name' ? !namesDiffer : alike[l] > 0.5,
      );
      return [{ item: other.id, score, why, ...apart(item, other) }];
    })
    .sort((a, b) => b.score - a.score || (a.item < b.item ? -1 : 1));
}

const wordsOf = (name: string): string[] => name.split(/[\s,;/]+/).filter((w) => w !== '');

/** 1 for the same name, 0 for nothing in common. */
function nameLikeness(a: string, b: string): number {
  const [x, y] = [a.toLowerCase(), b.toLowerCase()];
  const longest = Math.max(x.length, y.length);
  return longest === 0 ? 0 : 1 - distance(x, y) / longest;
}

function sizeLikeness(a: Goods['sizeMm'], b: Goods['sizeMm']): number {
  const [x, y] = [[...a].sort((p, q) => p - q), [...b].sort((p, q) => p - q)];
  return x.every((side, i) => Math.abs(side - y[i]!) <= LIKE_SIDES * Math.max(side, y[i]!)) ? 1 : 0;
}

function differing(a: string, b: string): number {
  if (a.length !== b.length) return Infinity;
  let n = 0;
  for (let i = 0; i < a.length; i++) if (a[i] !== b[i]) n += 1;
  return n;
}

/** The words that only one of two names has, else their sizes, where these differ. */
function apart(a: Goods, b: Goods): Pick<LookAlike, 'this' | 'other'> {
  const lower = (words: string[]) => new Set(words.map((w) => w.toLowerCase()));
  const [x, y] = [wordsOf(a.name), wordsOf(b.name)];
  const only = (own: string[], others: Set<string>) => own.filter((w) => !others.has(w.toLowerCase())).join(' ');
  const words = { this: only(x, lower(y)), other: only(y, lower(x)) };
  if (words.this !== '' || words.other !== '') return words;
  const size = ({ sizeMm }: Goods) => `${sizeMm.join(' × ')} mm`;
  return size(a) === size(b) ? words : { this: size(a), other: size(b) };
}
