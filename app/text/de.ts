import type { en } from './en.ts';
import type { Same } from './same.ts';
import { changes } from './de/changes.ts';
import { choose } from './de/choose.ts';
import { common } from './de/common.ts';
import { confirmRun } from './de/confirmRun.ts';
import { day } from './de/day.ts';
import { intake } from './de/intake.ts';
import { desk } from './de/desk.ts';
import { exceptions } from './de/exceptions.ts';
import { host } from './de/host.ts';
import { house } from './de/house.ts';
import { labels } from './de/labels.ts';
import { loads } from './de/loads.ts';
import { quick } from './de/quick.ts';
import { refusal } from './de/refusal.ts';
import { setup } from './de/setup.ts';
import { settings } from './de/settings.ts';
import { trail } from './de/trail.ts';
import { waves } from './de/waves.ts';
import { work } from './de/work.ts';

/** Every text that a person reads, in German. */
export const de: Same<typeof en> = {
  ...common,
  ...desk,
  ...choose,
  ...changes,
  ...confirmRun,
  ...day,
  ...intake,
  ...exceptions,
  ...host,
  ...labels,
  ...loads,
  ...quick,
  ...settings,
  ...house,
  ...trail,
  ...waves,
  ...work,
  ...setup,
  ...refusal,
};
