export { actors, peopleRoutes } from './routes.ts';
export { hashSecret } from './signIn.ts';
