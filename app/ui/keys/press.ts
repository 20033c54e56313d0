/** A key press as the page saw it. */
export interface Press {
  key: string;
  /** Milliseconds on the page's clock. */
  at: number;
}
