import type { Crew, CrewRun } from '@hand-relay/contract';
import { addDays, instantOf, localDate } from '@hand-relay/core/calendar';

type Given = Pick<CrewRun, 'pickerId' | 'assignedId' | 'team'>;

/** Where a run can lie: with a person, in a team's queue, or with whoever asks next. */
export interface Bay {
  key: string;
  title: string;
  /** When they work today; empty where nobody has said so. */
  shift: string;
  person: string | null;
  team: string;
  /** Since when their device is offline, with a run in hand. */
  offlineSince: string | null;
  /** When the shift begins and ends; null where nobody has said so. */
  span: { from: number; to: number } | null;
}

/** The key of the bay in which a run lies. */
export const bayOf = (run: Given): string =>
  run.pickerId ? `person ${run.pickerId}` : run.assignedId ? `person ${run.assignedId}` : `team ${run.team}`;

/**
 * Bays for people and queues: who is signed in or works a shift today, whoever has one of these runs, every team's queue,
 * and that of everybody.
 *
 * @param now milliseconds since the epoch
 */
export function baysOf(
  crew: Crew,
  runs: readonly Given[],
  {
    anybody,
    queue,
    now,
    timeZone,
  }: { anybody: string; queue: (team: string) => string; now: number; timeZone: string },
): Bay[] {
  const teams = [...new Set(['', ...crew.teams, ...runs.map((r) => r.team)])];
  const busy = new Set(runs.map(bayOf));
  return [
    ...teams.map((team) => ({
      key: `team ${team}`,
      title: team === '' ? anybody : queue(team),
      shift: '',
      person: null,
      team,
      offlineSince: null,
      span: null,
    })),
    ...crew.people
      // Who comes later today is given work ahead.
      .filter((p) => p.here || p.shift || busy.has(`person ${p.id}`))
      .map((p) => ({
        key: `person ${p.id}`,
        title: p.name,
        shift: p.shift ? `${p.shift.from}–${p.shift.until}` : '',
        person: p.id,
        team: p.shift?.team || p.team,
        offlineSince: p.offlineSince,
        span: p.shift && spanOf(p.shift, now, timeZone),
      })),
  ];
}

/** A shift of today as a stretch of time; one that is on may have begun yesterday, and one may end tomorrow. */
export function spanOf(
  { from, until, on }: { from: string; until: string; on: boolean },
  now: number,
  timeZone: string,
): { from: number; to: number } {
  const today = localDate(now, timeZone);
  const begins = instantOf(today, from, timeZone);
  const day = on && begins > now ? addDays(today, -1) : today;
  const start = instantOf(day, from, timeZone);
  const end = instantOf(day, until, timeZone);
  return { from: start, to: end > start ? end : instantOf(addDays(day, 1), until, timeZone) };
}

/** A run as a block of time. */
export interface Block {
  run: CrewRun;
  from: number;
  to: number;
}

/**
 * The runs of one person one after the other: what is in hand from now on, what is queued after it.
 *
 * @param runs of this person, in the order in which they are picked
 * @param pace what runs take beside what they should
 * @param span the shift; nobody begins before it
 */
export function blocksOf(runs: readonly CrewRun[], now: number, pace: number, span: Bay['span'] = null): Block[] {
  const order = [...runs].sort((a, b) => Number(b.state === 'picking') - Number(a.state === 'picking'));
  let at = order[0]?.state === 'picking' ? now : Math.max(now, span?.from ?? now);
  return order.map((run) => {
    const from = at;
    at += 1000 * pace * run.secondsLeft;
    return { run, from, to: at };
  });
}

export interface Placed extends Block {
  x: number;
  width: number;
}

/**
 * Where blocks lie on a lane: as long as they take, at least so wide that a finger finds them; one that has no room any
 * more is left out.
 *
 * @param along where an instant lies, in pixels
 */
export function placed(
  blocks: readonly Block[],
  along: (at: number) => number,
  width: number,
  least: number,
): Placed[] {
  const out: Placed[] = [];
  let free = 0;
  for (const block of blocks) {
    const x = Math.max(free, along(block.from));
    const wide = Math.max(least, along(block.to) - along(block.from));
    if (x + least > width) break;
    out.push({ ...block, x, width: Math.min(wide, width - x) });
    free = x + wide + 2;
  }
  return out;
}
