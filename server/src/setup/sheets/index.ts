export { setupToken } from './first.ts';
export { setupRoutes } from './routes.ts';
export { savePicture } from './pictures.ts';
