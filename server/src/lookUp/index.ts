import { endpoints } from '@hand-relay/contract';
import { serve, type Doors } from '../platform/index.ts';
import { lookUp } from './lookUp.ts';

export function lookUpRoutes(doors: Doors): void {
  serve(doors, endpoints.lookUp, ({ platform, actor, query }) => lookUp(platform, actor, query.code));
}
