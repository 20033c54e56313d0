export { setupRoutes } from './routes.ts';
export { keepPicture } from './pictures.ts';
