/** A part of an order's line that was split off, the last split first. */
export interface SplitPart {
  order: string;
  /** Base units that it asks now, and how many of them are picked. */
  asked: number;
  picked: number;
}

/**
 * Shares what a line asks now, as its document says, over the order itself and the parts that were split off: more is
 * asked of the order itself; less is taken from what waits first, and from what is picked last.
 *
 * @param wanted base units that the document asks
 * @param own what the order itself asks and how much of it is picked
 * @returns what each asks then; together `wanted`, unless more than that is picked
 */
export function shareSplit(
  wanted: number,
  own: Omit<SplitPart, 'order'>,
  parts: readonly SplitPart[],
): { own: number; parts: Map<string, number> } {
  const asked = own.asked + parts.reduce((n, p) => n + p.asked, 0);
  const shares = new Map(parts.map((p) => [p.order, p.asked]));
  if (wanted >= asked) return { own: own.asked + wanted - asked, parts: shares };
  let less = asked - wanted;
  let rest = own.asked;
  const take = (from: number, keep: number) => {
    const some = Math.max(0, Math.min(less, from - keep));
    less -= some;
    return from - some;
  };
  for (const part of parts) shares.set(part.order, take(shares.get(part.order)!, part.picked));
  rest = take(rest, own.picked);
  for (const part of parts) shares.set(part.order, take(shares.get(part.order)!, 0));
  rest = take(rest, 0);
  return { own: rest, parts: shares };
}
