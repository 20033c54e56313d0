import type { outboxNames, RunPick } from '@hand-relay/contract';
import type { PlaceGiven } from '@hand-relay/core/handling/picking';
import type { Call, Trouble } from '../state/index.ts';

/** How a pick, or a whole run, stands on the device after something was done, until the server has said so. */
export type After =
  | ({
      kind: 'pick';
      pick: string;
      /** Fewer than were asked, where the others are taken from another bin. */
      units?: number;
      /** The pick of the others. */
      rest?: RunPick;
      /** The pick of the others, asked here again. */
      drop?: string;
    } & Pick<RunPick, 'progress' | 'state' | 'picked'>)
  /** A pick comes next, another one last. */
  | { kind: 'order'; next: string; last?: string }
  /** An order is out of the run. */
  | { kind: 'out'; order: string }
  /** Goods are back in their bin. */
  | { kind: 'back'; goods: string }
  | { kind: 'left'; lane: string }
  /** An order has its place on the cart, and maybe another one its own. */
  | ({ kind: 'set' } & PlaceGiven)
  /** All orders that fit stand as planned. */
  | { kind: 'all-set' }
  /** Orders without a place are out of the run. */
  | { kind: 'behind'; orders: string[] }
  /** A bin was counted. */
  | { kind: 'counted'; count: string };

/** Words for what was done, should the server not take it. */
export interface About {
  run: string;
  bin: string;
  item: string;
  units: number;
}

/** Something done on the device that the server must hear of. */
export interface Entry {
  /** Place in the order of doing. */
  seq: number;
  /** By it a repeat is known for one. */
  key: string;
  person: string;
  ask: Call & {
    name: (typeof outboxNames)[number] | 'keepPhoto';
    id: string;
  };
  /** What the device made of it; null where only the server can say. */
  verdict: 'accepted' | 'done' | 'refused' | null;
  after: After | null;
  about: About;
  /** The server has it; it stands here until the run was read again. */
  sent: boolean;
}

/** What the server did not take: a task for who did it. */
export interface Rejected {
  /** Run and pick. */
  id: string;
  person: string;
  at: number;
  about: About;
  trouble: Trouble;
}
