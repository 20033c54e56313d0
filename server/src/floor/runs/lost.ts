import { sql } from 'drizzle-orm';
import type { z } from 'zod';
import type { lostBody } from '@hand-relay/contract';
import { Refusal, rows, type Change } from '../../platform/index.ts';
import { raiseException } from '../../desk/exceptions/index.ts';
import { lockRun } from './lock.ts';

/**
 * Journals what was picked offline and was not taken since, and tells the Desk: somebody has the goods in hand. Of a
 * run that is not there any more, as after a restore, all the same.
 */
export async function reportLost(change: Change, runId: string, lost: z.output<typeof lostBody>): Promise<void> {
  const run = await lockRun(change.tx, change.actor.siteId, runId).catch((error: unknown) => {
    if (error instanceof Refusal && error.code === 'not-found') return null;
    throw error;
  });
  const facts = { ...lost, run: run?.number ?? lost.run, picker: change.actor.name };
  const [at] = await rows<{ bin: string }>(
    change.tx,
    sql`select id as bin from place where site_id = ${change.actor.siteId} and kind = 'bin' and code = ${lost.bin}`,
  );
  await raiseException(change, {
    kind: 'lost',
    run: run?.id ?? null,
    place: at?.bin ?? null,
    units: lost.units,
    facts,
  });
  change.journal({ kind: 'scan-lost', runId: run ? runId : null, waveId: run?.waveId ?? null, facts });
  change.publish('runs', [runId], { kind: 'lost', for: 'orders.see', facts });
}
