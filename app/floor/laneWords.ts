import type { RunDetail } from '@hand-relay/contract';
import type { LaneAdvice } from '@hand-relay/core/handling/picking';
import { i18n } from '../text/index.ts';

type Lane = RunDetail['lanes'][number];

/** Why a cart should rather not be left in a lane, and where to take it. */
export function laneWords(lane: Lane, { full, other, metres, instead }: LaneAdvice, planned: string): string {
  const facts = { lane: lane.code, planned, carts: lane.carts, fits: lane.fits, metres: Math.round(metres ?? 0) };
  const to = instead ?? (other ? planned : null);
  return [
    other && i18n.t(metres === null ? 'floor.laneOther' : 'floor.laneFar', facts),
    full && i18n.t('floor.laneFull', facts),
    i18n.t(to === null ? 'floor.laneHere' : 'floor.laneElse', { ...facts, to }),
  ]
    .filter(Boolean)
    .join(' ');
}
