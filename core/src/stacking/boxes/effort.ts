/** How much a search may still try: a number of steps that depends on the input alone, and an outside end. */
export class Effort {
  constructor(
    /** Arrangements that may still be made. */
    public steps: number,
    /** Whether the time is up, whatever steps are left. */
    readonly over: () => boolean = () => false,
  ) {}

  get ended(): boolean {
    return this.steps <= 0 || this.over();
  }

  /** A part of what is left, of at most so many steps; what it uses is used here too. */
  part(steps: number): Effort {
    const whole = this;
    const given = Math.min(steps, this.steps);
    const part = new Effort(given, this.over);
    Object.defineProperty(part, 'steps', {
      get: () => given - used,
      set: (left: number) => {
        whole.steps -= given - used - left;
        used = given - left;
      },
    });
    let used = 0;
    return part;
  }
}
