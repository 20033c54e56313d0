export { lookAfterRestore } from './restored.ts';
export { LAST_DONE, type After, type Entry } from './outbox.ts';
export { OutboxLine } from './OutboxLine.tsx';
export { afterTold, outbox, useOutbox } from './theOutbox.ts';
