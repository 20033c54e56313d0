import type { RunPick } from '@hand-relay/contract';
import type { TouchRule } from '@hand-relay/core/deciding/settings';
import { awaited, cartonOf, positionCode, target, type Awaited } from '@hand-relay/core/handling/picking';
import { i18n, number } from '../text/index.ts';
import { endOf, type CartCell } from '../ui/index.ts';

/** What the card says of a pick: worded once, for the screen and its tests. */
export interface CardWords {
  await: Awaited;
  verb: string;
  code: string;
  unit: string | undefined;
  count: string;
  facts: string[];
  /** What will be left in the bin, and where the walk goes on. */
  foot: { label: string; value: string }[];
  /** What tells the goods from others that look like them. */
  alike: string | undefined;
  notes: string[];
  ask: string;
  /** The key in place of a scan; null where only a scan will do. */
  touch: string | null;
  /** The key by which the carton takes no more; null where there is none to be full. */
  further: string | null;
}

/** Codes do not break at their hyphens. */
const unbroken = (text: string) => text.replace(/(?<=\w)-(?=\w)/g, '\u2011');

/** What tells goods from those that they are easily taken for. */
function apart({ this: own, other, name, bin }: NonNullable<RunPick['lookAlike']>): string {
  const not = other === '' ? name : other;
  const key = own === '' ? 'floor.alike.not' : 'floor.alike.this';
  return unbroken([i18n.t(key, { own, not }), bin && `(${bin})`].filter(Boolean).join(' '));
}

/** The end of a carton's number, by which people tell cartons apart: they begin alike. */
export const lastOf = (sscc: string) => sscc.slice(-5);

/** Something that a number can be typed in: packs of an item, or single units. */
export interface CountUnit {
  /** As on the card: "× inner of 12 jar", or "× jar". */
  name: string;
  /** Base units of each. */
  units: number;
}

/** What a count of a pick can be typed in, first what the card asks in. */
export function countUnits({ step, unit }: RunPick): CountUnit[] {
  const packs = step.item.packs.filter((p) => p.units > 1 && p.units <= step.units);
  const all = [
    { name: `× ${unit}`, units: 1 },
    ...packs.map((p) => ({
      name: i18n.t('floor.packOf', { level: i18n.t(`floor.levelIn.${p.level}`), units: number(p.units), unit }),
      units: p.units,
    })),
  ];
  const asked = step.countedBy ?? 1;
  return [...all.filter((u) => u.units === asked), ...all.filter((u) => u.units !== asked)];
}

/** How many packs of the kind that the order counts in make so many units; null where it counts in units, or some are left over. */
function inPacks({ askedIn, step }: RunPick, units: number): { packs: number; level: string; units: number } | null {
  const pack = askedIn === 'unit' ? undefined : step.item.packs.find((p) => p.level === askedIn);
  if (!pack || units === 0 || units % pack.units !== 0) return null;
  return { packs: units / pack.units, level: i18n.t(`floor.levelIn.${pack.level}`), units: pack.units };
}

/** So many units as the order counts them, with what that is in the base unit. */
function inWords(pick: RunPick, units: number): string {
  const base = `${number(units)} × ${pick.unit}`;
  const asked = inPacks(pick, units);
  return asked ? `${number(asked.packs)} ${asked.level} = ${base}` : base;
}

/** What a touch is worth at what a pick awaits. */
export function touchRule({ step, progress }: RunPick): TouchRule {
  const wait = awaited(step, progress)[0];
  if (wait === undefined || wait === 'serial' || (wait === 'item' && progress.seen)) return 'allowed';
  return step.touch?.[wait === 'carton' ? 'position' : wait] ?? 'allowed';
}

export function cardWords(pick: RunPick, next: RunPick | undefined): CardWords {
  const t = i18n.t.bind(i18n);
  const { step, progress } = pick;
  const wait = awaited(step, progress)[0] ?? (step.carton ? 'carton' : 'position');
  const carton = step.carton && cartonOf(step, progress);
  const all = target(step, progress);
  const position = positionCode(step.position);
  const rule = touchRule(pick);
  const barred = rule === 'never';
  const lotNow = progress.swapped ?? step.lot;
  const lot = lotNow
    ? t('floor.lot', { lot: [lotNow, ...(progress.lot ? [] : step.otherLots)].join(` ${t('floor.or')} `) })
    : null;
  const good = pick.bestBefore ? t('floor.bestBefore', { date: pick.bestBefore }) : null;
  const asked = inPacks(pick, all - progress.counted);
  const largest = step.item.packs.filter((p) => p.level !== 'unit' && p.units <= all).at(-1);
  return {
    await: wait,
    verb: wait === 'carton' && !carton ? t('floor.verb.newCarton') : t(`floor.verb.${wait}`),
    code:
      wait === 'bin'
        ? step.bin
        : wait === 'lot'
          ? (step.lot ?? '')
          : wait === 'position' || wait === 'carton'
            ? t('floor.place', { number: step.position.number })
            : number(asked?.packs ?? all - progress.counted),
    unit:
      wait === 'item' || wait === 'serial'
        ? asked
          ? t('floor.packOf', { level: asked.level, units: number(asked.units), unit: pick.unit })
          : `× ${pick.unit}`
        : wait === 'carton'
          ? carton
            ? t('floor.cartonNo', { last: lastOf(carton) })
            : unbroken(progress.box ?? step.carton!.box)
          : undefined,
    count:
      progress.counted > 0 && wait !== 'bin'
        ? `${t('floor.count', { counted: number(progress.counted), units: number(all) })} × ${pick.unit}`
        : inWords(pick, all),
    facts: [
      wait === 'bin' ? pick.zone : step.bin,
      [lot, good].filter(Boolean).join(', '),
      largest ? t('floor.packHolds', { level: t(`floor.level.${largest.level}`), units: number(largest.units) }) : '',
    ]
      .filter(Boolean)
      .map(unbroken),
    foot: [
      { label: t('floor.thenLeft'), value: pick.remains > 0 ? number(pick.remains) : t('floor.remainsNone') },
      {
        label: t('floor.nextStop'),
        value: unbroken(
          !next ? t('floor.lastStop') : next.step.item.id === step.item.id ? t('floor.sameAgain') : next.step.bin,
        ),
      },
    ],
    // Before the hand moves, and while it counts; whoever is at the cart has the goods already.
    alike: pick.lookAlike && wait !== 'position' && wait !== 'carton' ? apart(pick.lookAlike) : undefined,
    notes: [
      pick.order.note && t('floor.orderNote', { note: pick.order.note }),
      pick.lineNote && t('floor.lineNote', { note: pick.lineNote }),
    ].filter((n) => n !== ''),
    ask:
      awaited(step, progress).length > 1 && wait === 'bin'
        ? t('floor.ask.binOrItem', { bin: step.bin })
        : wait === 'carton' && !carton
          ? t('floor.ask.newCarton')
          : t(`floor.ask.${wait}`, { bin: step.bin, lot: lotNow, position, carton: carton && lastOf(carton) }),
    touch: barred
      ? null
      : wait === 'bin'
        ? t('floor.iAmHere')
        : wait === 'item'
          ? step.how.counting === 'each'
            ? null
            : t('floor.all', { units: number(all) })
          : wait === 'lot'
            ? t('floor.lotMatches')
            : wait === 'position' || (wait === 'carton' && carton)
              ? t('floor.isIn')
              : null,
    further:
      carton && wait !== 'bin'
        ? t(progress.counted > 0 && progress.counted < all ? 'floor.cartonFull' : 'floor.further')
        : null,
  };
}

/** The places of a cart with what is still to do in each. */
export function cellsOf(picks: readonly RunPick[]): CartCell[] {
  const places = [...new Set(picks.map((p) => p.step.position.number))];
  return places.map((place) => {
    const own = picks.filter((p) => p.step.position.number === place);
    return {
      number: place,
      label: endOf(own[0]!.order.number),
      state: own.some((p) => p.state === 'open') ? 'open' : 'done',
    };
  });
}
