import type { z } from 'zod';
import type { intakeBody, IntakeResult } from '@hand-relay/contract';
import { localDate } from '@hand-relay/core/calendar';
import { sql } from 'drizzle-orm';
import { readOrdersCsv } from '@hand-relay/core/reading/intake';
import { change, rows, type Actor, type Platform, type ReadOrderFile, type Repeat } from '../../platform/index.ts';
import { asRead, previewOrders, takeOrders } from '../orders/index.ts';
import { takeFile } from './imports.ts';
import { knownSenders } from './senders.ts';

type Body = z.output<typeof intakeBody>;

/**
 * Looks at orders from a file or the API, and takes the good ones when told to. Taking looks again, in its own
 * transaction: what the preview saw may have changed.
 */
export async function intake(
  platform: Platform,
  actor: Actor,
  repeat: Repeat | null,
  body: Body,
): Promise<IntakeResult> {
  if (body.orders !== undefined) {
    const read = asRead(body.orders);
    if (body.mode === 'preview') return previewOrders(platform.db, actor.siteId, read);
    return change(platform, actor, repeat, async (current) => (await takeOrders(current, read, body.document)).result);
  }
  const read = await readSent(platform, actor.siteId, body);
  if (body.mode === 'preview')
    return { ...(await previewOrders(platform.db, actor.siteId, read)), file: read.layout ?? null };
  const { document, sender = '' } = body;
  return change(platform, actor, repeat, (current) => takeFile(current, read, { document, sender, source: 'screen' }));
}

/** What was sent, as drafted orders: a file is read in a thread of its own. */
export async function readSent(
  { db, compute, clock }: Platform,
  siteId: string,
  { file, csv, layout: chosen, sender }: Pick<Body, 'file' | 'csv' | 'layout' | 'sender'>,
): Promise<ReadOrderFile> {
  const senders = await knownSenders(db, siteId);
  const [site] = await rows<{ zone: string }>(db, sql`select time_zone as zone from site where id = ${siteId}`);
  const layout = chosen ?? senders.find((s) => s.name === sender)?.layout;
  const options = { layout, senders, today: localDate(clock().getTime(), site?.zone ?? 'UTC') };
  if (file !== undefined)
    return compute.readOrderFile({ bytes: new Uint8Array(Buffer.from(file, 'base64')), ...options });
  return readOrdersCsv(csv!, options);
}
