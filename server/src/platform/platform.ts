import type { Foundation } from './foundation.ts';
import type { Jobs } from './jobs.ts';

/** What every service works with. */
export interface Platform extends Foundation {
  jobs: Jobs;
}
