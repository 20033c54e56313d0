import { common } from './de/common.ts';
import { confirmRun } from './de/confirmRun.ts';
import { others } from './de/others.ts';
import { refusal } from './de/refusal.ts';
import { work } from './de/work.ts';

/** What Floor, Bench and Dock say, in German; Desk and Setup are read in English. */
export const de = { ...others, ...common, ...work, ...confirmRun, ...refusal };
