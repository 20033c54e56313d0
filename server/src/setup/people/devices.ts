import { networkInterfaces } from 'node:os';
import type { Request } from 'express';
import { sql } from 'drizzle-orm';
import type { Devices } from '@hand-relay/contract';
import { silentBefore } from './present.ts';
import { iso, notFound, rows, type Actor, type Change, type Platform } from '../../platform/index.ts';

/** Who is signed in at the site, and under which addresses other devices find this server. */
export async function devicesAt(platform: Platform, actor: Actor, req: Request): Promise<Devices> {
  const found = await rows<Devices['devices'][number]>(
    platform.db,
    sql`select s.id, s.device, s.browser, p.name as person, ${iso(sql`s.created_at`)} as since, ${iso(sql`s.expires_at`)} as until,
               case when s.heard_at < ${silentBefore(platform.clock())} then ${iso(sql`s.heard_at`)} end as "offlineSince",
               s.id = ${actor.sessionId} as own
        from session s join person p on p.id = s.person_id
        where s.site_id = ${actor.siteId} and s.expires_at > ${platform.clock().toISOString()} order by s.created_at desc`,
  );
  return { devices: found, addresses: addressesOf(req), secure: req.secure };
}

/** The address that was asked, unless only this machine knows it, and those of the machine's own network. */
function addressesOf(req: Request): string[] {
  const host = req.get('host') ?? 'localhost';
  const port = /:(\d+)$/.exec(host)?.[1];
  const local = /^(localhost|127\.|\[::1\])/.test(host);
  const near = Object.values(networkInterfaces())
    .flatMap((list) => list ?? [])
    .filter((i) => i.family === 'IPv4' && !i.internal)
    .map((i) => (port ? `${i.address}:${port}` : i.address));
  return [...new Set([...(local ? [] : [host]), ...near, ...(local ? [host] : [])])].map(
    (address) => `${req.protocol}://${address}`,
  );
}

/** Ends a session of the site: its device is asked to sign in again. */
export async function signOutDevice(change: Change, id: string): Promise<void> {
  const [ended] = await rows<{ device: string; person: string }>(
    change.tx,
    sql`delete from session s using person p where p.id = s.person_id and s.id = ${id} and s.site_id = ${change.actor.siteId}
        returning s.device, p.name as person`,
  );
  if (!ended) throw notFound('device', id);
  change.journal({ kind: 'device-signed-out', facts: { ...ended } });
  change.publish('setup', []);
}
