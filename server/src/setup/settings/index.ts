export { settingsRoutes } from './routes.ts';
export { standards } from './standards.ts';
export { paperFor, settingsOf } from './settings.ts';
