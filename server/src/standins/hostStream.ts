import { sql } from 'drizzle-orm';
import { setTimeout as pause } from 'node:timers/promises';
import type { z } from 'zod';
import type { HostMessages, hostStreamBody } from '@hand-relay/contract';
import { change, rows, type Change, type Db, type Platform, type Tx } from '../platform/index.ts';
import { hostReceives, playHost } from './host.ts';

type Stream = NonNullable<HostMessages['stream']>;

/** The stream of a site, where one is under way on any server. */
export async function streamOf(on: Db | Tx, siteId: string): Promise<Stream | null> {
  const [job] = await rows<{ stream: Stream }>(
    on,
    sql`select input as stream from job where kind = 'host-stream' and of_id = ${siteId} and state = 'running' and not cancel`,
  );
  return job?.stream ?? null;
}

/** Begins, changes or ends the stream of a site. */
export async function setStream(
  current: Change,
  { jobs }: Platform,
  { every, ...play }: z.output<typeof hostStreamBody>,
): Promise<void> {
  const ofId = current.actor.siteId;
  if (every === null) await jobs.cancel(current, { kind: 'host-stream', ofId });
  else {
    const input = { every, ...play };
    if ((await jobs.put(current, { kind: 'host-stream', ofId, input })) === null)
      // One that is about to end goes on too.
      await current.tx.execute(
        sql`update job set input = ${JSON.stringify(input)}::jsonb, cancel = false where kind = 'host-stream' and of_id = ${ofId} and state = 'running'`,
      );
  }
  current.publish('host', []);
}

/** Says what a stream does: it sends and receives every so many seconds until somebody ends it. */
export function defineHostStream(platform: Platform): void {
  platform.jobs.define('host-stream', 'host', async ({ actor, signal }) => {
    for (;;) {
      const stream = await streamOf(platform.db, actor.siteId);
      if (stream)
        await change(platform, actor, null, async (current) => {
          await playHost(current, stream);
          await hostReceives(current);
        }).catch((error: unknown) => platform.log.warn({ err: error }, 'the host stand-in was refused'));
      await pause((stream?.every ?? 1) * 1000, undefined, { signal });
    }
  });
}
