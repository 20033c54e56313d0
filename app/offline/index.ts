export { lookAfterRestore } from './restored.ts';
export type { After, Entry } from './entry.ts';
export { LAST_DONE } from './outbox.ts';
export { OutboxLine } from './OutboxLine.tsx';
export { afterTold, outbox, useOutbox } from './theOutbox.ts';
