/** A key press as the page saw it. */
export interface Press {
  key: string;
  /** Milliseconds on the page's clock. */
  at: number;
}

/** Longest pause between two keys of a scanner, and time a single key waits before it counts as a person's. */
export const GAP_MS = 80;
/** Shorter bursts are a person rolling fingers over keys. */
export const LEAST = 4;

export type Heard =
  /** Goes on; nothing is decided yet. `burst` is true once keys come too fast for fingers. */
  | { kind: 'waiting'; burst: boolean }
  /** A scanner typed this, and ended it with Enter or Tab. */
  | { kind: 'scan'; text: string }
  /** A person's key. */
  | { kind: 'key'; key: string };

/**
 * Tells a typing scanner's burst from a person's keys by the pauses between them. Pure of the page: presses go in,
 * what they mean comes out.
 */
export class Burst {
  private presses: Press[] = [];

  /** Takes a press; a pause since the last one starts over. */
  press(press: Press): Heard {
    const last = this.presses.at(-1);
    if (last && press.at - last.at > GAP_MS) this.presses = [];
    if (press.key === 'Enter' || press.key === 'Tab') {
      const text = this.presses.map((p) => p.key).join('');
      const burst = this.presses.length >= LEAST;
      this.presses = [];
      return burst ? { kind: 'scan', text } : { kind: 'key', key: press.key };
    }
    this.presses.push(press);
    return { kind: 'waiting', burst: this.presses.length >= 2 };
  }

  /** How many keys are gathered: more than one is too fast for a shortcut. */
  get length(): number {
    return this.presses.length;
  }

  /** Called when no further key came: a single key was a person's, several were a burst without an end. */
  quiet(): Heard {
    const [only] = this.presses;
    const single = this.presses.length === 1;
    this.presses = [];
    return single ? { kind: 'key', key: only!.key } : { kind: 'waiting', burst: false };
  }

  clear(): void {
    this.presses = [];
  }
}
