export { backupOf } from './backup.ts';
export { keepBackups } from './nightly.ts';
export { keepRoutes } from './routes.ts';
