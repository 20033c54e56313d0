export { runOrderFolder, turnOrderFolder } from './folder.ts';
export { intakeRoutes } from './routes.ts';
