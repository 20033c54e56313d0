export interface Mix {
  /** Cartons of each type. */
  cartons: number[];
  price: number;
}

/**
 * Mixes of cartons from the cheapest on, those left out that are excluded; each that is excluded is looked at with one
 * carton more.
 *
 * @param below mixes that cost at least this are not gone through: the first of them ends the row
 * @param most mixes that are looked at
 */
export function* mixesByPrice(
  prices: readonly number[],
  below: number,
  most: number,
  excluded: (cartons: readonly number[]) => boolean,
): Generator<Mix> {
  const waiting: { mix: Mix; last: number }[] = [];
  const push = (mix: Mix, last: number) => {
    // A heap would be quicker; the row is short, as what costs too much is never in it.
    let at = waiting.length;
    while (at > 0 && waiting[at - 1]!.mix.price < mix.price) at -= 1;
    waiting.splice(at, 0, { mix, last });
  };
  const grow = (cartons: readonly number[], price: number, last: number) => {
    for (let t = last; t < prices.length; t++) {
      const grown = price + prices[t]!;
      // One that costs as much as what is known ends the row, and says that all cheaper ones were seen.
      push({ cartons: cartons.map((n, i) => (i === t ? n + 1 : n)), price: Math.min(grown, below) }, t);
    }
  };
  grow(
    prices.map(() => 0),
    0,
    0,
  );
  for (let seen = 0; waiting.length > 0; seen++) {
    const { mix, last } = waiting.pop()!;
    if (mix.price >= below || seen >= most) {
      yield mix;
      return;
    }
    if (!excluded(mix.cartons)) yield mix;
    grow(mix.cartons, mix.price, last);
  }
}
