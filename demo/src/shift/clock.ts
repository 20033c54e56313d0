/** A clock that stands at an instant of the shift while that is played, and then goes on with the time of day. */
export class ShiftClock {
  private at: number | null = null;

  readonly now = (): Date => new Date(this.at ?? Date.now());

  /** Sets it forward; never back, so that what was done later also stands later in every history. */
  set(at: number): void {
    this.at = Math.max(this.at ?? 0, at);
  }

  /** From here on it shows the time of day. */
  release(): void {
    this.at = null;
  }
}

/** Somebody's work: yields the seconds until the next act, and ends when nothing is left to do. */
export type Work = AsyncGenerator<number, void>;

/**
 * Lets everybody work side by side: always the one goes on whose time comes first.
 *
 * @param work what each does, with the instants at which it begins and, where that is before all stop, ends, in
 *   milliseconds
 * @param until instant at which all stop, whatever they are at
 */
export async function workUntil(
  until: number,
  clock: ShiftClock,
  work: { from: number; to?: number; of: Work }[],
): Promise<void> {
  const hands = [...work];
  for (;;) {
    const next = hands.reduce<(typeof hands)[number] | null>((a, b) => (a && a.from <= b.from ? a : b), null);
    if (!next || next.from >= until) return;
    clock.set(next.from);
    const { done, value } = await next.of.next();
    if (done || next.from + value * 1000 >= (next.to ?? until)) hands.splice(hands.indexOf(next), 1);
    else next.from += value * 1000;
  }
}
