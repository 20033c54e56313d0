import { sql, type SQL } from 'drizzle-orm';
import type { z } from 'zod';
import {
  printNeeds,
  type jobQuery,
  type printBody,
  type PrintJob,
  type PrintKind,
  type Right,
} from '@hand-relay/contract';
import {
  badgeSheet,
  cartonDrawings,
  cartonNumbers,
  countSheet,
  handoffLabel,
  labelPdf,
  labels,
  labelZpl,
  packingSlip,
  palletDrawing,
  palletSheet,
  testPage,
  wavePaper,
  waveSlips,
} from '../documents/index.ts';
import {
  change,
  iso,
  notFound,
  recordset,
  Refusal,
  rows,
  type Actor,
  type Change,
  type Db,
  type Platform,
  type Tx,
} from '../../platform/index.ts';
import { nextSsccs } from '../../stock/index.ts';
import { palletDetail } from '../../dock/units/index.ts';
import { paperFor, settingsOf } from '../settings/index.ts';

type Wanted = z.output<typeof printBody>;

/** A finished document, ready to be queued. */
interface Made {
  pdf: Buffer;
  title: string;
  /** For label printers that take their own language. */
  zpl?: string;
}

/** Makes the document that is asked for, in the sizes of the site. */
export async function makeDocument(
  platform: Platform,
  { siteId, personId }: Pick<Actor, 'siteId' | 'personId'>,
  wanted: Wanted & { kind: Exclude<PrintKind, 'carton-numbers'> },
): Promise<Made> {
  const { label } = await settingsOf(platform.db, siteId);
  const { paper, language } = await paperFor(platform.db, siteId, personId);
  switch (wanted.kind) {
    case 'carton-label':
      return labelOf(platform, siteId, wanted.of);
    case 'pallet-label':
      return palletLabelOf(platform, siteId, wanted.of);
    case 'pallet-plan': {
      const pallet = await palletDetail(platform.db, siteId, wanted.of);
      return { pdf: await palletSheet(pallet, paper), title: `Pallet ${pallet.number}` };
    }
    case 'packing-slip': {
      const pdf = await packingSlip(platform, siteId, wanted.of, { paper });
      const [shipment] = await rows<{ number: string }>(
        platform.db,
        sql`select number from shipment where id = ${wanted.of}`,
      );
      return { pdf, title: `Packing slip ${shipment!.number}` };
    }
    case 'handoff-label':
      return { pdf: await handoffLabel(platform, siteId, wanted.of, label), title: 'Handoff label' };
    case 'badges':
      return { pdf: await badgeSheet(platform, siteId), title: 'Badges' };
    case 'count-sheet':
      return { pdf: await countSheet(paper), title: 'Count barcodes' };
    case 'labels': {
      if (!wanted.labels) throw new Refusal('labels-missing', {}, [{ path: 'labels', message: 'Required' }]);
      const made = await labels(platform, siteId, wanted.labels, language);
      return { pdf: made, title: `Labels, ${wanted.labels.what.replace('-', ' ')}` };
    }
    case 'pick-lists':
      return { pdf: await wavePaper(platform, siteId, wanted.of, { paper, language }), title: 'Pick lists' };
    case 'order-slips':
      return { pdf: await waveSlips(platform, siteId, wanted.of, { paper, language }), title: 'Order slips' };
    case 'test-page':
      return { pdf: await testPage(wanted.printer ?? wanted.station, label), title: 'Test page' };
  }
}

/** @throws Refusal 409 `carton-open` where it is not closed */
export async function labelOf(platform: Platform, siteId: string, cartonId: string): Promise<Made> {
  const { label } = await settingsOf(platform.db, siteId);
  const drawings = await cartonDrawings(platform, siteId, cartonId, label);
  const [carton] = await rows<{ number: number; order: string }>(
    platform.db,
    sql`select c.number, o.number as "order" from carton c join customer_order o on o.id = c.order_id where c.id = ${cartonId} and c.site_id = ${siteId}`,
  );
  const title = `Label, carton ${carton!.number} of ${carton!.order}`;
  return { pdf: await labelPdf(drawings), zpl: labelZpl(drawings), title };
}

/** @throws Refusal 409 `pallet-open` where it is not closed */
async function palletLabelOf(platform: Platform, siteId: string, id: string): Promise<Made> {
  const { label } = await settingsOf(platform.db, siteId);
  const drawing = await palletDrawing(platform, siteId, id, label);
  const [pallet] = await rows<{ number: string }>(platform.db, sql`select number from pallet where id = ${id}`);
  return { pdf: await labelPdf([drawing]), zpl: labelZpl([drawing]), title: `Label, pallet ${pallet!.number}` };
}

/** Most numbers that are printed at once, and as many as are printed where nobody says. */
const MOST_NUMBERS = 200;
const USUAL_NUMBERS = 12;

/**
 * Draws numbers for cartons and prints them ahead: each is printed once, or it would be on two cartons.
 *
 * @throws Refusal 422 `not-a-count`
 */
export async function printNumbers(
  platform: Platform,
  siteId: string,
  wanted: Wanted,
  change: <T>(work: (current: Change) => Promise<T>) => Promise<T>,
): Promise<{ job: string; printer: string }> {
  const count = Number(wanted.of || USUAL_NUMBERS);
  if (!Number.isInteger(count) || count < 1 || count > MOST_NUMBERS)
    throw new Refusal('not-a-count', { expected: `1–${MOST_NUMBERS}`, got: wanted.of });
  const { label } = await settingsOf(platform.db, siteId);
  return change(async (current) => {
    const pdf = await cartonNumbers(await nextSsccs(current, count), label);
    return queue(current, wanted, { pdf, title: `Numbers for ${count} cartons` });
  });
}

/** Where a station prints: the printer named, else its own, else one that prints for all; null where there is none. */
async function printerFor(on: Db | Tx, siteId: string, wanted: Wanted): Promise<string | null> {
  const onRoll =
    ['carton-label', 'pallet-label', 'carton-numbers', 'handoff-label', 'test-page'].includes(wanted.kind) ||
    (wanted.labels !== undefined && wanted.labels.size !== 'sheet');
  const what = onRoll ? 'labels' : 'sheets';
  const [found] = await rows<{ code: string }>(
    on,
    sql`select code from printer where site_id = ${siteId} and not retired and ${
      wanted.printer
        ? sql`code = upper(${wanted.printer})`
        : sql`prints in (${what}, 'all') and (upper(${wanted.station}) = any(stations) or stations = '{}')`
    } order by upper(${wanted.station}) = any(stations) desc, prints = 'all', code limit 1`,
  );
  return found?.code ?? null;
}

/**
 * Queues a document where the station prints.
 *
 * @throws Refusal 409 `no-printer`
 */
export async function queue(change: Change, wanted: Wanted, made: Made): Promise<{ job: string; printer: string }> {
  const printer = await printerFor(change.tx, change.actor.siteId, wanted);
  if (printer === null) throw new Refusal('no-printer', { station: wanted.station || wanted.printer });
  const job = await insertJob(change, wanted, made, { printer, state: 'waiting', note: '' });
  return { job, printer };
}

async function insertJob(
  change: Change,
  wanted: Wanted,
  made: Made,
  { printer, state, note }: { printer: string; state: PrintJob['state']; note: string },
): Promise<string> {
  const { tx, actor, now } = change;
  const job = change.newId();
  await tx.execute(sql`
    insert into print_job (id, site_id, at, person_id, station, printer, title, document, copies, needs, pdf, zpl, state, note)
    values (${job}, ${actor.siteId}, ${now.toISOString()}, ${actor.personId}, ${wanted.station}, ${printer}, ${made.title},
      ${`${wanted.kind} ${wanted.of}`.trim()}, ${wanted.copies}, array(select jsonb_array_elements_text(${recordset([...printNeeds[wanted.kind], PRINTS])})),
      decode(${made.pdf.toString('base64')}, 'base64'), ${made.zpl ?? null}, ${state}, ${note})`);
  change.journal({ kind: 'printed', facts: { job, printer, title: made.title, station: wanted.station } });
  change.publish('printing', [job]);
  return job;
}

/** A machine that prints sees all that it has to print. */
const PRINTS: Right = 'printers.serve';

/** Jobs that a person may see: each carries the rights of what it shows. */
const seenBy = ({ siteId, rights }: Actor) =>
  sql`j.site_id = ${siteId} and j.needs && array(select jsonb_array_elements_text(${recordset([...rights])}))`;

/** What was printed, the newest first; for a printer's own question the oldest first, as it fetches them. */
export function jobs(on: Db, actor: Actor, { printer, state }: z.output<typeof jobQuery>): Promise<PrintJob[]> {
  return rows<PrintJob>(
    on,
    sql`select j.id, ${iso(sql`j.at`)} as at, p.name as person, j.station, j.printer, j.title, j.copies, j.state, j.note
        from print_job j join person p on p.id = j.person_id where ${seenBy(actor)}
          ${printer ? sql`and j.printer = upper(${printer})` : sql``} ${state ? sql`and j.state = ${state}` : sql``}
        order by ${state === 'waiting' ? sql`j.at` : sql`j.at desc`} limit 200`,
  );
}

/** A label for a label printer.
 *
 * @throws Refusal 404 where the job is no label
 */
export async function zplOf(on: Db, actor: Actor, id: string): Promise<string> {
  const [job] = await rows<{ zpl: string | null }>(
    on,
    sql`select zpl from print_job j where j.id = ${id} and ${seenBy(actor)}`,
  );
  if (!job?.zpl) throw notFound('label', id);
  return job.zpl;
}

/** The file of a job. */
export async function fileOf(on: Db, actor: Actor, id: string): Promise<Buffer> {
  const [job] = await rows<{ pdf: string }>(
    on,
    sql`select encode(pdf, 'base64') as pdf from print_job j where j.id = ${id} and ${seenBy(actor)}`,
  );
  if (!job) throw notFound('print job', id);
  return Buffer.from(job.pdf, 'base64');
}

/** Says what became of a job: printed, failed with why, or waiting again. */
export async function conclude(
  change: Change,
  id: string,
  { state, note }: { state: PrintJob['state']; note: string },
): Promise<{ job: string; printer: string }> {
  const [job] = await rows<{ printer: string }>(
    change.tx,
    sql`update print_job set state = ${state}, note = ${note}, printed_at = ${state === 'printed' ? change.now.toISOString() : null}
        where id = ${id} and site_id = ${change.actor.siteId} returning printer`,
  );
  if (!job) throw notFound('print job', id);
  change.publish('printing', [id]);
  return { job: id, printer: job.printer };
}

/**
 * Prints what the site wants on paper when a wave starts. Where no printer takes it, it stands among what was printed as
 * failed, with why: the start is not held up by it.
 */
export async function printAtStart(platform: Platform, actor: Actor, wave: string): Promise<void> {
  const { atStart } = await settingsOf(platform.db, actor.siteId);
  const at = { paper: await paperFor(platform.db, actor.siteId, actor.personId), siteId: actor.siteId };
  const papers = [
    { on: atStart.lists, kind: 'pick-lists', title: 'Pick lists', make: wavePaper },
    { on: atStart.slips, kind: 'order-slips', title: 'Order slips', make: waveSlips },
  ] as const;
  for (const { on, kind, title, make } of papers) {
    if (!on) continue;
    const pdf = await make(platform, at.siteId, wave, at.paper);
    const wanted: Wanted = {
      kind,
      of: wave,
      station: '',
      copies: 1,
      ...(atStart.printer ? { printer: atStart.printer } : {}),
    };
    await change(platform, actor, null, async (current) => {
      const printer = await printerFor(current.tx, at.siteId, wanted);
      const state = printer === null ? 'failed' : 'waiting';
      const note = printer === null ? 'no-printer' : '';
      await insertJob(current, wanted, { pdf, title }, { printer: printer ?? atStart.printer, state, note });
    });
  }
}

/** The label of a pallet that was just closed, twice: one for a long side and one for a short side. */
export async function printPalletAtClosing(
  platform: Platform,
  actor: Actor,
  { pallet, station }: { pallet: string; station: string },
): Promise<string | null> {
  if ((await settingsOf(platform.db, actor.siteId)).labels === 'hand') return null;
  return printOnce(platform, actor, {
    wanted: { kind: 'pallet-label', of: pallet, station, copies: 2 },
    unit: sql`select closed_at from pallet where id = ${pallet}`,
    make: () => palletLabelOf(platform, actor.siteId, pallet),
  });
}

/**
 * Prints a document of a unit that was closed, once.
 *
 * @param unit selects when the unit was closed; it is locked while its job is written
 * @returns the printer; null where none takes it
 */
export async function printOnce(
  platform: Platform,
  actor: Actor,
  { wanted, unit, make }: { wanted: Wanted; unit: SQL; make: () => Promise<Made> },
): Promise<string | null> {
  // A repeat of the closing is answered as it was, and prints nothing again.
  const before = async (on: Db | Tx) =>
    (
      await rows<{ printer: string }>(
        on,
        sql`select j.printer from print_job j join (${unit}) u on true
            where j.site_id = ${actor.siteId} and j.document = ${`${wanted.kind} ${wanted.of}`} and j.at >= u.closed_at limit 1`,
      )
    )[0]?.printer;
  const printed = await before(platform.db);
  if (printed !== undefined) return printed;
  const printer = await printerFor(platform.db, actor.siteId, wanted);
  if (printer === null) return null;
  const made = await make();
  return change(platform, actor, null, async (current) => {
    await current.tx.execute(sql`${unit} for update`);
    const first = await before(current.tx);
    if (first === undefined) await insertJob(current, wanted, made, { printer, state: 'waiting', note: '' });
    return first ?? printer;
  });
}
