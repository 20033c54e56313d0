export { setupToken } from './first.ts';
export { setupRoutes } from './routes.ts';
export { keepPicture } from './pictures.ts';
