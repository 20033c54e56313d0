import { readCode, type Code } from './readCode.ts';

/** What codes of master data are for. */
export type CodeUse = 'bin' | 'cart' | 'place' | 'badge' | 'box' | 'item';

/** What may go wrong when a code is scanned: it reads as something else, or a scanner that types cannot send it. */
export type CodeWarning = { kind: 'reads-as'; as: Code['kind'] } | { kind: 'not-typed'; signs: string };

const reads: Record<CodeUse, readonly Code['kind'][]> = {
  bin: ['bin'],
  cart: ['cart'],
  place: ['lane', 'bench', 'door'],
  badge: ['badge'],
  box: ['box'],
  item: [],
};

/**
 * What to point out about a code before it is printed on labels: signs that a scanner typing as a keyboard cannot send
 * on every layout (all but printable ASCII), and forms by which it would be read as a code of another kind where the
 * place that it is scanned at does not know it. Null where it is fine. A code of no form of its own is fine.
 */
export function warnOfCode(use: CodeUse, code: string, thisYear: number): CodeWarning | null {
  const signs = [...code].filter((c) => c < ' ' || c > '~');
  if (signs.length > 0) return { kind: 'not-typed', signs: [...new Set(signs)].join(' ') };
  const { kind } = readCode(code, thisYear);
  return kind === 'text' || reads[use].includes(kind) ? null : { kind: 'reads-as', as: kind };
}
