/** How much a search may still try: a number of steps that depends on the input alone, and an outside end. */
export class Effort {
  #left: number;
  readonly #whole: Effort | null;

  constructor(
    /** Arrangements that may be made. */
    steps: number,
    /** Whether the time is up, whatever steps are left. */
    readonly over: () => boolean = () => false,
    whole: Effort | null = null,
  ) {
    this.#left = steps;
    this.#whole = whole;
  }

  get ended(): boolean {
    return this.#left <= 0 || (this.#whole ? this.#whole.ended : this.over());
  }

  /** Counts an arrangement, here and in what this is a part of. */
  use(): void {
    this.#left -= 1;
    this.#whole?.use();
  }

  /** A part of what is left, of at most so many steps. */
  part(steps: number): Effort {
    return new Effort(Math.min(steps, this.#left), this.over, this);
  }
}
