import { remember, remembered } from '../../deviceCache/index.ts';
import type { Press } from './press.ts';

/** What ends a code; `any` takes Enter and Tab, `pause` is for scanners that send neither. */
export const scannerEnds = ['any', 'Enter', 'Tab', 'pause'] as const;
export type ScannerEnd = (typeof scannerEnds)[number];

/** How the scanner of this device types. */
export interface Scanner {
  ends: ScannerEnd;
  /** One character sent before each code, or none. */
  prefix: string;
  /** Longest pause between two of its keys, ms. */
  pauseMs: number;
}

export const usualScanner: Readonly<Scanner> = { ends: 'any', prefix: '', pauseMs: 80 };
/** Pauses that can be set, ms: quicker ones are no different, slower ones are no scanner's. */
export const PAUSES = { least: 80, most: 500 };

const NAME = 'scanner';
let known: Readonly<Scanner> | null = null;

const valid = (s: Partial<Scanner> | null): s is Scanner =>
  !!s &&
  scannerEnds.includes(s.ends!) &&
  typeof s.prefix === 'string' &&
  [...s.prefix].length <= 1 &&
  typeof s.pauseMs === 'number' &&
  s.pauseMs >= PAUSES.least &&
  s.pauseMs <= PAUSES.most;

/** The settings of this device; the usual ones where none were made or they cannot be read. */
export function scannerHere(): Readonly<Scanner> {
  if (known) return known;
  let found: Partial<Scanner> | null = null;
  try {
    found = JSON.parse(remembered(NAME) ?? 'null') as Partial<Scanner> | null;
  } catch {
    // Written by something else: the usual ones.
  }
  return (known = valid(found) ? found : usualScanner);
}

/** Sets how the scanner of this device types, from the next key on. */
export function setScanner(scanner: Scanner): void {
  known = scanner;
  remember(NAME, JSON.stringify(scanner));
}

/** Whether a key ends a code. */
export const endsCode = ({ ends }: Scanner, key: string): boolean =>
  ends === 'any' ? key === 'Enter' || key === 'Tab' : ends === key;

/** Milliseconds without a key after which a code has ended, for a scanner that sends nothing at its end. */
export const quietMs = ({ pauseMs }: Scanner): number => Math.max(300, 3 * pauseMs);

/** The code without the character that a scanner puts before it. */
export const withoutPrefix = ({ prefix }: Scanner, text: string): string =>
  prefix !== '' && text.length > prefix.length && text.startsWith(prefix) ? text.slice(prefix.length) : text;

/** What scanning a known code told about the scanner. */
export type Tried =
  | { kind: 'nothing' }
  /** Something came, but not the code: another code, or letters of another keyboard. */
  | { kind: 'other'; text: string; keyboard: boolean }
  /** More than one character came before the code: nothing that can be set here. */
  | { kind: 'longPrefix'; prefix: string }
  /** Something came after the code, before Enter or Tab. */
  | { kind: 'suffix'; suffix: string }
  | { kind: 'read'; scanner: Scanner; medianMs: number; longestMs: number };

const asText = (presses: readonly Press[]) => presses.map((p) => p.key).join('');

/**
 * Reads what a scanner typed when it was given a known code, and proposes settings for it. The pause gets half as much
 * again as was seen, as scanners without wires are slower at times.
 *
 * @param presses keys in the order in which they came, Enter and Tab by their names
 * @param expected the code that was scanned, longer than two characters
 */
export function readTrial(presses: readonly Press[], expected: string): Tried {
  const last = presses.at(-1);
  const ended = last && (last.key === 'Enter' || last.key === 'Tab') ? last.key : null;
  const typed = presses.filter((p) => p.key !== 'Enter' && p.key !== 'Tab');
  const text = asText(typed);
  if (text === '') return { kind: 'nothing' };
  const at = text.indexOf(expected);
  if (at < 0)
    return { kind: 'other', text, keyboard: [...text].length >= [...expected].length && sameLetters(text, expected) };
  const suffix = text.slice(at + expected.length);
  if (suffix !== '') return { kind: 'suffix', suffix };
  const prefix = text.slice(0, at);
  if ([...prefix].length > 1) return { kind: 'longPrefix', prefix };
  const pauses = presses.slice(1).map((p, i) => p.at - presses[i]!.at);
  const sorted = [...pauses].sort((a, b) => a - b);
  const longestMs = sorted.at(-1) ?? 0;
  const pauseMs = Math.min(PAUSES.most, Math.max(PAUSES.least, Math.ceil((longestMs * 1.5) / 10) * 10));
  return {
    kind: 'read',
    scanner: { ends: ended ?? 'pause', prefix, pauseMs },
    medianMs: sorted[Math.floor(sorted.length / 2)] ?? 0,
    longestMs,
  };
}

/** Whether enough characters agree by place, so that a keyboard's other letters explain the rest. */
function sameLetters(text: string, expected: string): boolean {
  const tail = [...text].slice(-[...expected].length);
  const same = [...expected].filter((c, i) => c.toLowerCase() === tail[i]?.toLowerCase()).length;
  return same * 5 >= [...expected].length * 2;
}
