import type { z } from 'zod';
import type { lostBody } from '@hand-relay/contract';
import type { Change } from '../platform/index.ts';
import { lockRun } from './lock.ts';

/** Journals what was picked without radio and was not taken since, and tells the Desk: somebody has the goods in hand. */
export async function reportLost(change: Change, runId: string, lost: z.output<typeof lostBody>): Promise<void> {
  const run = await lockRun(change.tx, change.actor.siteId, runId);
  const facts = { ...lost, run: run.number, picker: change.actor.name };
  change.journal({ kind: 'scan-lost', runId, waveId: run.waveId, facts });
  change.tell('runs', [runId], { kind: 'lost', for: 'orders.see', facts });
}
