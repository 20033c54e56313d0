/** What a count of one item, lot and serial number in a bin says, against the books. */
export interface Counted {
  /** Units that the books have in the bin. */
  booked: number;
  /** Units that were not found there before and wait for a count. */
  doubtful: number;
  counted: number;
}

/** How the books are put right; each a number of units to move, together making the bin hold what was counted. */
export interface Correction {
  /** Doubted units that lie in the bin after all. */
  back: number;
  /** Doubted units that are gone. */
  lost: number;
  /** Units in the bin that no book had. */
  found: number;
  /** Units that the books had in the bin and that are not there. */
  gone: number;
  /** Units by which all of it differs: above what the site allows, somebody has to agree. */
  difference: number;
}

/**
 * The movements by which a count puts the books right: what was doubted goes back into the bin as far as it was counted,
 * and is written off where it was not.
 *
 * @example
 * correct({ booked: 4, doubtful: 3, counted: 6 }) // { back: 2, lost: 1, found: 0, gone: 0, difference: 1 }
 */
export function correct({ booked, doubtful, counted }: Counted): Correction {
  const beyond = Math.max(0, counted - booked);
  const back = Math.min(beyond, doubtful);
  return {
    back,
    lost: doubtful - back,
    found: beyond - back,
    gone: Math.max(0, booked - counted),
    difference: Math.abs(counted - booked - doubtful),
  };
}
