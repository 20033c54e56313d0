export { Bus } from './bus.ts';
export type { Carrier } from './carrier.ts';
export { change, type Actor, type Change, type Repeat } from './change.ts';
export { openComputation, type Computation } from './computation.ts';
export * from './database/index.ts';
export { watchDisk } from './disk.ts';
export { randomId, type IdSource } from './ids.ts';
export type { ReadOrderFile } from './orderFile.ts';
export type { ReadFile } from './file.ts';
export { runTurns, unattended } from './unattended.ts';
export { Jobs, type JobRun, type JobState } from './jobs.ts';
export type { JournalEntry } from './journalEntry.ts';
export { appBuild, productFolder, productVersion } from './modules.ts';
export { openLog, type LogFile } from './log.ts';
export { OperatorError } from './operatorError.ts';
export type { Platform } from './platform.ts';
export { notFound, Refusal } from './refusal.ts';
export { match } from './match.ts';
export { anyOf, iso, recordset, rows } from './rows.ts';
export {
  fromElsewhere,
  problems,
  requestLog,
  mountEndpoint,
  mountOutbox,
  type Ask,
  type Routes,
  type Handler,
} from './serve.ts';
