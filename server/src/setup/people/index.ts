export { actors, peopleRoutes } from './routes.ts';
export { journalAccounts, membersOf, type ChangedAccount } from './changes.ts';
export { present, silentBefore } from './present.ts';
export { hashSecret } from './signIn.ts';
export { shiftsAt, teamOf } from './shifts.ts';
