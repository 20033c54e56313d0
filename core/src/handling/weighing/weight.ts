/** What is known of the weight of an item's units, in grams. */
export interface ItemWeight {
  /** Of one unit, by all that was weighed. */
  meanG: number;
  /** How unsure the mean is, as a variance. */
  variance: number;
  /** How much single units differ, as a variance. */
  spread: number;
  /** Cartons that it was learnt from. */
  cartons: number;
}

/** Units of an item in what is weighed. */
export interface Weighed {
  units: number;
  weight: ItemWeight;
}

export interface Expected {
  grams: number;
  /** What the scale may show more or less. */
  toleranceG: number;
  /** Places in the contents of items of which one unit more or less would not be seen. */
  unseen: number[];
}

/** The weight of an item is entered as well as somebody weighed one: within this share of it, one time in three not. */
const ENTERED = 0.04;
/** Units of one item differ by this share of their weight before anything is known. */
const DIFFER = 0.02;
/** What a scale shows otherwise, grams. */
const SCALE_G = 5;
/** Paper, tape and the carton itself: this share of its tare. */
const PACKING = 0.08;
/** Standard deviations that still count as the same weight: two of a thousand good cartons are outside. */
const WIDE = 3;
/** A tolerance below this would stop a packer for a strip of tape, grams. */
const LEAST_G = 20;
/** A mean is never surer than this share of it: packaging and makers change. */
const DRIFT = 0.004;
/** Cartons after which a measured weight is worth proposing, and the share by which it must be off. */
const ENOUGH = 5;
const OFF = 0.02;

/** What is known of an item that was never weighed: its entered weight, which may be rough. */
export const enteredWeight = (grams: number): ItemWeight => ({
  meanG: grams,
  variance: Math.max(1, ENTERED * grams) ** 2,
  spread: Math.max(0.5, DIFFER * grams) ** 2,
  cartons: 0,
});

/**
 * The weight that a carton should have, and how far the scale may be from it: the unsureness of each item's mean grows
 * with the units, that of their differences with its root.
 *
 * @param tareG of the carton itself
 */
export function expectWeight(tareG: number, contents: readonly Weighed[]): Expected {
  const grams = tareG + contents.reduce((sum, { units, weight }) => sum + units * weight.meanG, 0);
  const toleranceG = Math.max(LEAST_G, WIDE * Math.sqrt(varianceOf(tareG, contents)));
  const unseen = contents.flatMap(({ weight }, i) => (weight.meanG <= toleranceG ? [i] : []));
  return { grams: Math.round(grams), toleranceG: Math.ceil(toleranceG), unseen };
}

/** Whether a measured weight is what is expected. */
export const isExpected = (measuredG: number, { grams, toleranceG }: Pick<Expected, 'grams' | 'toleranceG'>): boolean =>
  Math.abs(measuredG - grams) <= toleranceG;

/**
 * What a weighed carton teaches about each of its items. The difference to what was expected is shared out by how unsure
 * each part of it was (the update of Kalman, 1960, with the covariances between items left out); the spread follows the
 * squared differences, as Mehra (1970) proposes for noise that is not known.
 *
 * @param measuredG with the carton itself
 * @returns one for each of the contents, in their order
 */
export function learnWeights(tareG: number, contents: readonly Weighed[], measuredG: number): ItemWeight[] {
  const seen = varianceOf(tareG, contents);
  const off = measuredG - tareG - contents.reduce((sum, { units, weight }) => sum + units * weight.meanG, 0);
  return contents.map(({ units, weight }) => {
    const { meanG, variance, spread, cartons } = weight;
    const gain = (units * variance) / seen;
    const share = (units * spread) / seen;
    const step = 1 / (cartons + ENOUGH);
    return {
      meanG: Math.max(0, meanG + gain * off),
      variance: Math.min(variance, Math.max(0.01, (DRIFT * meanG) ** 2, variance * (1 - gain * units))),
      spread: Math.max(0.01, spread + (step * share * (off * off - seen)) / Math.max(1, units)),
      cartons: cartons + 1,
    };
  });
}

/**
 * The weight that an item should be entered with, in whole grams; null where what is entered holds, or too little was
 * weighed to say.
 */
export function properWeight(enteredG: number, { meanG, variance, cartons }: ItemWeight): number | null {
  const grams = Math.max(1, Math.round(meanG));
  const off = Math.abs(meanG - enteredG);
  const sure = cartons >= ENOUGH && off > WIDE * Math.sqrt(variance) && off > Math.max(2, OFF * enteredG);
  return sure && grams !== enteredG ? grams : null;
}

function varianceOf(tareG: number, contents: readonly Weighed[]): number {
  const goods = contents.reduce(
    (sum, { units, weight }) => sum + units * units * weight.variance + units * weight.spread,
    0,
  );
  return goods + SCALE_G ** 2 + (PACKING * tareG) ** 2;
}
