export { backupOf } from './backup.ts';
export { keepBackups } from './nightly.ts';
export { drawnIn, restore } from './restore.ts';
export { keepRoutes } from './routes.ts';
