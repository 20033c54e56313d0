export type { Arrival, OpenLine, OpenOrder } from './open.ts';
export {
  outlook,
  readinesses,
  type ItemOutlook,
  type LineOutlook,
  type OrderOutlook,
  type Outlook,
  type Readiness,
} from './outlook.ts';
export { compare, type Comparison, type Tally } from './compare.ts';
export { served, type ServedBy } from './served.ts';
export { Reasons, type Reason, type Why } from './why.ts';
export { overdrawn, shift, type Portion } from './share.ts';
