import type { Amounts } from '../../handling/progress/index.ts';

export const openPlaces = ['release', 'pick', 'pack', 'ship'] as const;
export type OpenPlace = (typeof openPlaces)[number];

/**
 * Where what is still open of an order waits: units to release, to pick, to pack and to ship.
 *
 * @returns the units of each, and the earliest of them that has any; null where nothing is open
 */
export function openAt({ asked, released, picked, packed, shipped }: Amounts): {
  waits: Record<OpenPlace, number>;
  at: OpenPlace | null;
} {
  const waits = { release: asked - released, pick: released - picked, pack: picked - packed, ship: packed - shipped };
  return { waits, at: openPlaces.find((place) => waits[place] > 0) ?? null };
}

/** What can be decided at the end of a day about what is still open of an order. */
export const dayActs = ['move', 'ship-short', 'cancel'] as const;
export type DayAct = (typeof dayActs)[number];

/**
 * Which of the decisions of the end of a day an order allows: it moves to another day as long as anything is open; what
 * is packed of it ships alone where nothing is on its way there; what is not released yet is cancelled.
 */
export function actsFor(waits: Record<OpenPlace, number>, { shipComplete }: { shipComplete: boolean }): DayAct[] {
  const underWay = waits.pick + waits.pack;
  const open = underWay + waits.release + waits.ship;
  return dayActs.filter((act) =>
    act === 'move'
      ? open > 0
      : act === 'ship-short'
        ? waits.ship > 0 && underWay === 0 && waits.release > 0 && !shipComplete
        : waits.release > 0,
  );
}
