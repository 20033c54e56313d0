import { seeded } from '@hand-relay/core/random';
import {
  enteredWeight,
  expectWeight,
  isExpected,
  learnWeights,
  properWeight,
  type ItemWeight,
} from '@hand-relay/core/handling/weighing';
import type { Note } from './note.ts';

const ITEMS = 200;
const CARTONS = 6_000;
/** Cartons that a figure is taken over, at the beginning and at the end. */
const WINDOW = 1_000;
const TARE_G = 300;

/** A number that looks normally distributed: the sum of twelve. */
const normal = (next: () => number) => Array.from({ length: 12 }, next).reduce((sum, x) => sum + x, -6);

/**
 * A house that weighs its cartons: how many good ones are stopped, and of how many one unit too few is seen, before
 * anything is learnt and afterwards; and which of the weights that were entered wrongly are proposed.
 */
export function benchWeights(note: Note): void {
  const random = seeded(97);
  const next = () => random.next();
  // Items of 20 g to 5 kg; one of ten is entered 8 to 20 % off, the others within what people enter.
  const items = Array.from({ length: ITEMS }, () => {
    const real = 20 * 250 ** next();
    const wrong = next() < 0.1;
    const off = wrong ? (0.08 + 0.12 * next()) * (next() < 0.5 ? -1 : 1) : 0.01 * normal(next);
    return { real, wrong, entered: Math.max(1, Math.round(real * (1 + off))) };
  });
  const known: ItemWeight[] = items.map((i) => enteredWeight(i.entered));
  const seen: { stopped: boolean; told: boolean; tellable: boolean }[] = [];
  for (let n = 0; n < CARTONS; n++) {
    const list = [...new Set(Array.from({ length: random.int(1, 4) }, () => random.int(0, ITEMS - 1)))];
    const contents = list.map((i) => ({ units: random.int(1, 6), weight: known[i]! }));
    const goods = contents.reduce(
      (sum, { units }, k) =>
        sum +
        Array.from({ length: units }, () => items[list[k]!]!.real * (1 + 0.01 * normal(next))).reduce(
          (a, b) => a + b,
          0,
        ),
      0,
    );
    // Paper and tape differ, and so does the scale.
    const measured = Math.round(TARE_G + goods + 10 * normal(next));
    const expected = expectWeight(TARE_G, contents);
    const missing = random.int(0, list.length - 1);
    const stopped = !isExpected(measured, expected);
    seen.push({
      stopped,
      told: !isExpected(measured - items[list[missing]!]!.real, expected),
      tellable: !expected.unseen.includes(missing),
    });
    // A packer who is stopped counts again, and is right.
    learnWeights(TARE_G, contents, measured).forEach((weight, k) => (known[list[k]!] = weight));
  }
  for (const [when, from] of [
    ['first', 0],
    ['last', CARTONS - WINDOW],
  ] as const) {
    const part = seen.slice(from, from + WINDOW);
    const share = (list: typeof part, has: (s: (typeof part)[number]) => boolean) =>
      (100 * list.filter(has).length) / list.length;
    note(
      `good cartons that are stopped, ${when} ${WINDOW}`,
      share(part, (s) => s.stopped),
      '%',
    );
    note(
      '  one unit too few is seen',
      share(part, (s) => s.told),
      '%',
    );
    note(
      '  of units that a scale can tell at all',
      share(
        part.filter((s) => s.tellable),
        (s) => s.told,
      ),
      '%',
    );
  }
  const proposed = items.map((item, i) => properWeight(item.entered, known[i]!) !== null);
  const wrong = items.filter((i) => i.wrong).length;
  note(
    `items entered 8 to 20 % off that are proposed, of ${wrong}`,
    items.filter((i, k) => i.wrong && proposed[k]).length,
    '',
  );
  note(`others that are proposed, of ${ITEMS - wrong}`, items.filter((i, k) => !i.wrong && proposed[k]).length, '');
}
