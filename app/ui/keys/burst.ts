import type { Press } from './press.ts';
import { endsCode, quietMs, withoutPrefix, type Scanner } from './scanner.ts';

/** Shorter bursts are a person rolling fingers over keys. */
export const LEAST = 4;

export type Heard =
  /** Goes on; nothing is decided yet. `burst` is true once keys come too fast for fingers, or after the prefix. */
  | { kind: 'waiting'; burst: boolean }
  /** A scanner typed this. */
  | { kind: 'scan'; text: string }
  /** Keys that a person pressed, in their order. */
  | { kind: 'keys'; keys: string[] };

/**
 * Tells a typing scanner's burst from a person's keys by the pauses between them, and surely where the scanner sends a
 * prefix. No key is lost: what turns out to be no scan is given back as a person's keys. Pure of the page: presses go
 * in, what they mean comes out.
 */
export class Burst {
  private presses: Press[] = [];

  constructor(private readonly scanner: () => Scanner) {}

  private get text(): string {
    return this.presses.map((p) => p.key).join('');
  }

  /** Whether what was gathered begins with the scanner's prefix; never, where it has none. */
  private get begun(): boolean {
    const { prefix } = this.scanner();
    return prefix !== '' && this.presses[0]?.key === prefix;
  }

  /** Milliseconds after the last key until `quiet` is to be called. */
  get waitMs(): number {
    const scanner = this.scanner();
    return this.begun || scanner.ends === 'pause' ? quietMs(scanner) : scanner.pauseMs + 10;
  }

  /** Takes a press. Keys of before that a pause parted from it come back as a person's. */
  press(press: Press): { before: string[]; heard: Heard } {
    const scanner = this.scanner();
    const last = this.presses.at(-1);
    const limit = this.begun ? quietMs(scanner) : scanner.pauseMs;
    const before = last && press.at - last.at > limit ? this.giveUp() : [];
    return { before, heard: this.take(press, scanner) };
  }

  private take(press: Press, scanner: Scanner): Heard {
    if (press.key !== 'Enter' && press.key !== 'Tab') {
      this.presses.push(press);
      return { kind: 'waiting', burst: this.begun || this.presses.length >= 2 };
    }
    const scan = endsCode(scanner, press.key) && this.isScan(scanner);
    const text = this.text;
    const keys = this.giveUp();
    return scan ? { kind: 'scan', text: withoutPrefix(scanner, text) } : { kind: 'keys', keys: [...keys, press.key] };
  }

  private isScan({ prefix }: Scanner): boolean {
    return prefix === '' ? this.presses.length >= LEAST : this.begun && this.presses.length >= 2;
  }

  /** Forgets what was gathered; a person's keys, as it was no scan. */
  giveUp(): string[] {
    const keys = this.presses.map((p) => p.key);
    this.presses = [];
    return keys;
  }

  /** How many keys are gathered: more than one is too fast for a shortcut. */
  get length(): number {
    return this.presses.length;
  }

  /** Called when no further key came: a code whose scanner sends nothing at its end, or a person's keys. */
  quiet(): Heard {
    const scanner = this.scanner();
    const scan = scanner.ends === 'pause' && this.isScan(scanner);
    const text = this.text;
    const keys = this.giveUp();
    return scan ? { kind: 'scan', text: withoutPrefix(scanner, text) } : { kind: 'keys', keys };
  }
}
