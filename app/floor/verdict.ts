/** What was last said of what a picker did. */
export interface Verdict {
  kind: 'done' | 'refused' | 'caution';
  text: string;
}
