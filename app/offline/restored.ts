import type { Me, RunDetail } from '@hand-relay/contract';
import { storedAnswers, forgetAnswer, remember, remembered, unanswered } from '../deviceCache/index.ts';
import { addressOf, call, type Trouble } from '../state/index.ts';
import { outbox } from './theOutbox.ts';
import type { Rejected } from './entry.ts';

/** Under this the device remembers which restore of the server it has looked after. */
const SEEN = 'restore-seen';

/** Why the server does not have something any more. */
const gone: Trouble = { code: 'restored', facts: {}, fields: [], requestId: '', status: 410 };

/**
 * What was picked in a run and the server, restored to an earlier state, does not know: each is a task, as the goods are
 * on somebody's cart.
 *
 * @param known the run as this device had it from the server before
 * @param now the run as the server has it now; null where it is not there
 */
export function missingAfterRestore(
  known: RunDetail,
  now: RunDetail | null,
): ({ run: string } & Omit<Rejected, 'at' | 'person'>)[] {
  const has = new Map(now?.picks.map((p) => [p.step.id, p.picked]));
  return known.picks.flatMap(({ step, picked }) => {
    const units = picked - (has.get(step.id) ?? 0);
    const about = { run: known.run.number, bin: step.bin, item: step.item.name, units };
    return units > 0 ? [{ run: known.run.id, id: `${known.run.id} ${step.id}`, about, trouble: gone }] : [];
  });
}

/**
 * Looks once, after the server was restored from a backup, whether it still has what was picked on this device in the
 * runs in hand; what it has not becomes tasks, told to the Desk.
 */
export async function lookAfterRestore({ restored, person }: Me): Promise<void> {
  // An earlier release did not say.
  if (!restored || remembered(SEEN) === restored.at) return;
  const runs = (await storedAnswers('/api/runs/')) as RunDetail[];
  for (const known of runs) {
    if (known.run?.pickerId !== person.id || (known.run.state !== 'picking' && known.run.state !== 'left')) continue;
    const ask = { name: 'run', id: known.run.id } as const;
    const answer = await call(ask);
    // Nobody answers now: it is looked at again when somebody does.
    if ('error' in answer && answer.error.code !== 'not-found') {
      if (unanswered(answer.error) || answer.error.code === 'not-signed-in') return;
      continue;
    }
    const now = 'data' in answer ? (answer.data as RunDetail) : null;
    await outbox.addLost(person.id, missingAfterRestore(known, now));
    if (!now) await forgetAnswer(addressOf(ask));
  }
  remember(SEEN, restored.at);
}
