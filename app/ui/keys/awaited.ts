import type { Press } from './burst.ts';

/** A pause after which what was typed before is forgotten: the slowest scanners pause a quarter of a second between keys. */
export const FORGET_MS = 1_500;
/** A key that nothing follows for so long is a person's. */
export const ALONE_MS = 350;

export type Typed =
  /** Part of a code: it must reach nothing on the page. */
  | { kind: 'part' }
  /** A code, ended by Enter or Tab. */
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

  press({ key, at }: Press): Typed {
    if (at - this.last > FORGET_MS) this.keys = [];
    this.last = at;
    if (key !== 'Enter' && key !== 'Tab') {
      this.keys.push(key);
      return { kind: 'part' };
    }
    const text = this.keys.join('');
    this.keys = [];
    return text === '' ? { kind: 'end' } : { kind: 'code', text };
  }

  /** Whether no code has begun. */
  idle(at: number): boolean {
    return this.keys.length === 0 || at - this.last > FORGET_MS;
  }

  /** The one key that was pressed, when nothing followed it; it is no part of a code any more. */
  alone(): string | null {
    if (this.keys.length !== 1) return null;
    const [key] = this.keys;
    this.keys = [];
    return key!;
  }

  clear(): void {
    this.keys = [];
  }
}
