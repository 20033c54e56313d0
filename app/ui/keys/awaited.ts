import type { Press } from './press.ts';
import { endsCode, quietMs, withoutPrefix, type Scanner } from './scanner.ts';

/** A pause after which what was typed before is forgotten: the slowest scanners pause a quarter of a second between keys. */
export const FORGET_MS = 1_500;
/** A key that nothing follows for so long is a person's. */
export const ALONE_MS = 350;

export type Typed =
  /** Part of a code: it must reach nothing on the page. */
  | { kind: 'part' }
  /** A code that has come to its end. */
  | { kind: 'code'; text: string }
  /** Enter or Tab with nothing typed before. */
  | { kind: 'end' };

/**
 * Gathers keys where a step awaits a scan. There every key is part of a code, however slowly a scanner types it and
 * however short the code is: nothing typed can press what was touched last. Pure of the page.
 */
export class Awaited {
  private keys: string[] = [];
  private last = -Infinity;

  constructor(private readonly scanner: () => Scanner) {}

  press({ key, at }: Press): Typed {
    if (at - this.last > FORGET_MS) this.keys = [];
    this.last = at;
    if (key !== 'Enter' && key !== 'Tab') {
      this.keys.push(key);
      return { kind: 'part' };
    }
    const scanner = this.scanner();
    const text = withoutPrefix(scanner, this.keys.join(''));
    this.keys = [];
    return text === '' || !(scanner.ends === 'pause' || endsCode(scanner, key))
      ? { kind: 'end' }
      : { kind: 'code', text };
  }

  /** Whether no code has begun. */
  idle(at: number): boolean {
    return this.keys.length === 0 || at - this.last > FORGET_MS;
  }

  /** Milliseconds after the last key until `quiet` is to be called. */
  get waitMs(): number {
    const scanner = this.scanner();
    return scanner.ends === 'pause' ? quietMs(scanner) : ALONE_MS;
  }

  /**
   * Called when nothing followed for that long: the code, where the scanner sends nothing at its end; else the one key
   * that a person pressed, which is no part of a code any more; else null.
   */
  quiet(): { kind: 'code' | 'key'; text: string } | null {
    const scanner = this.scanner();
    const text = this.keys.join('');
    if (scanner.ends === 'pause' && text !== '') {
      this.keys = [];
      return { kind: 'code', text: withoutPrefix(scanner, text) };
    }
    if (this.keys.length !== 1) return null;
    this.keys = [];
    return { kind: 'key', text };
  }

  clear(): void {
    this.keys = [];
  }
}
