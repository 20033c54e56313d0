export { backupOf } from './backup.ts';
export { Backups, type BackupPlan } from './nightly.ts';
export { drawnIn, restore } from './restore.ts';
export { backupRoutes } from './routes.ts';
export { dropOld, runRetention } from './retention.ts';
