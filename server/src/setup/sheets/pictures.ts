import { createHash } from 'node:crypto';
import { sql } from 'drizzle-orm';
import { notFound, Refusal, rows, type Change, type Db } from '../../platform/index.ts';

/** Kinds of picture by their first bytes: what a file calls itself proves nothing. */
const kinds = [
  ['image/png', /^89504e470d0a1a0a/],
  ['image/jpeg', /^ffd8ff/],
  ['image/webp', /^52494646........57454250/],
] as const;

/**
 * Keeps a picture, once however often it is sent.
 *
 * @returns its name, as the items' column of pictures holds it
 * @throws Refusal 422 `not-a-picture`
 */
export async function savePicture({ tx }: Change, data: string): Promise<string> {
  const bytes = Buffer.from(data, 'base64');
  const kind = kinds.find(([, begins]) => begins.test(bytes.subarray(0, 12).toString('hex')));
  if (!kind) throw new Refusal('not-a-picture');
  const id = createHash('sha256').update(bytes).digest('hex').slice(0, 24);
  await tx.execute(sql`
    insert into picture (id, type, bytes) values (${id}, ${kind[0]}, decode(${bytes.toString('base64')}, 'base64')) on conflict do nothing`);
  return `own:${id}`;
}

export async function readPicture(on: Db, id: string): Promise<{ type: string; bytes: Buffer }> {
  const [found] = await rows<{ type: string; data: string }>(
    on,
    sql`select type, encode(bytes, 'base64') as data from picture where id = ${id}`,
  );
  if (!found) throw notFound('picture', id);
  return { type: found.type, bytes: Buffer.from(found.data, 'base64') };
}
