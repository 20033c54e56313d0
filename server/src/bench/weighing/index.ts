export { closingWeight, expectedWeights } from './expected.ts';
export { weighingRoutes } from './routes.ts';
