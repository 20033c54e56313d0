/** What is to be written of something that happened; who, when and from which device is added to it. */
export interface JournalEntry {
  kind: string;
  orderId?: string | null;
  waveId?: string | null;
  runId?: string | null;
  facts?: Record<string, unknown>;
}
