import { changes } from './en/changes.ts';
import { choose } from './en/choose.ts';
import { common } from './en/common.ts';
import { confirmRun } from './en/confirmRun.ts';
import { day } from './en/day.ts';
import { intake } from './en/intake.ts';
import { desk } from './en/desk.ts';
import { exceptions } from './en/exceptions.ts';
import { host } from './en/host.ts';
import { house } from './en/house.ts';
import { labels } from './en/labels.ts';
import { loads } from './en/loads.ts';
import { quick } from './en/quick.ts';
import { refusal } from './en/refusal.ts';
import { setup } from './en/setup.ts';
import { settings } from './en/settings.ts';
import { trail } from './en/trail.ts';
import { waves } from './en/waves.ts';
import { work } from './en/work.ts';

/** Every text that a person reads, in English. */
export const en = {
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
