export { backupOf } from './backup.ts';
export { Backups, type BackupPlan } from './nightly.ts';
export { drawnIn, restore } from './restore.ts';
export { keepRoutes } from './routes.ts';
