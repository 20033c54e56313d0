/** A line as it stands when its order changes upstream, in base units. */
export interface LineUnderWay {
  asked: number;
  cancelled: number;
  released: number;
  picked: number;
  /** Of what is picked, what has left: nobody can put it back. */
  shipped: number;
}

export interface Adapted {
  asked: number;
  cancelled: number;
  /** Released units that nobody has picked and that go back to Desk. */
  back: number;
  /** Picked units beyond what is wanted now and here still: a person decides whether they are put back or shipped. */
  surplus: number;
}

/**
 * What a new quantity means for a line under way: what is not picked adapts by itself, what is picked stays until a
 * person has decided.
 *
 * @param wanted base units that are asked now; 0 where the line is gone
 */
export function adaptLine({ asked, released, picked, shipped }: LineUnderWay, wanted: number): Adapted {
  const stays = Math.max(wanted, picked);
  return {
    asked: Math.max(asked, stays),
    cancelled: Math.max(0, asked - stays),
    back: Math.max(0, released - stays),
    surplus: picked - Math.min(picked, Math.max(wanted, shipped)),
  };
}
