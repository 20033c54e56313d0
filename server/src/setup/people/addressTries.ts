import { sql } from 'drizzle-orm';
import type { ClientRateLimitInfo, Options, Store } from 'express-rate-limit';
import type { Platform } from '../../platform/index.ts';
import { countOne, hashOf } from './tries.ts';

/** Counts sign-ins from an address in the database, so that all servers on it count together. */
export class AddressTries implements Store {
  /** Counts are shared by all processes. */
  readonly localKeys = false;
  private windowMs = 60_000;
  private readonly platform: Platform;

  constructor(platform: Platform) {
    this.platform = platform;
  }

  init({ windowMs }: Options): void {
    this.windowMs = windowMs;
  }

  async increment(address: string): Promise<ClientRateLimitInfo> {
    const { db, clock } = this.platform;
    const { tries, until } = await countOne(db, keyOf(address), clock(), this.windowMs);
    return { totalHits: tries, resetTime: until };
  }

  async decrement(address: string): Promise<void> {
    await this.platform.db.execute(
      sql`update sign_in_try set tries = greatest(0, tries - 1) where key = ${keyOf(address)}`,
    );
  }

  async resetKey(address: string): Promise<void> {
    await this.platform.db.execute(sql`delete from sign_in_try where key = ${keyOf(address)}`);
  }
}

const keyOf = (address: string) => hashOf(JSON.stringify(['address', address]));
