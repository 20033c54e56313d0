import { outbox } from '../offline/index.ts';
import { randomKey } from '../state/index.ts';

/** Why a scan was refused, as it is worded. */
export interface Why {
  code: string;
  facts: Record<string, string>;
}

/** Counts a scan that the device refused by itself, where no pick awaits one, as an error that was caught. */
export function countRefused(
  { run, number, of }: { run: string; number: string; of: string | null },
  { code, facts }: Why,
): void {
  outbox.add({
    key: randomKey(),
    ask: { name: 'countRefused', id: run, body: { of, code, facts } },
    verdict: null,
    after: null,
    about: { run: number, bin: '', item: '', units: 0 },
  });
}
