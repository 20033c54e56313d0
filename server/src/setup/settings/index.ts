export { settingsRoutes } from './routes.ts';
export { standards } from './standards.ts';
export { settingsOf } from './settings.ts';
