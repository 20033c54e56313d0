import { sql } from 'drizzle-orm';
import type { AccountChange } from '@hand-relay/contract';
import { iso, recordset, rows, type Change, type Db } from '../../platform/index.ts';

/** What was changed about an account: columns of the sheet of people, or `role`, a role that they have. */
export interface ChangedAccount {
  person: string;
  name: string;
  what: string[];
  /** The role that was changed, where it is one. */
  role?: string;
}

/** Journals changes of accounts, one entry for each person, who is told of it when they are here next. */
export function journalAccounts(change: Change, changed: readonly ChangedAccount[]): void {
  change.journal(...changed.map((facts) => ({ kind: 'account-changed' as const, facts: { ...facts } })));
}

/** What others changed about a person's account since they last said that they saw it, the newest first. */
export function changesOf(on: Db, personId: string): Promise<AccountChange[]> {
  return rows<AccountChange>(
    on,
    sql`select j.id, ${iso(sql`j.at`)} as at, p.name as by, j.facts->'what' as what, j.facts->>'role' as role
        from person me join membership m on m.person_id = me.id
        -- Site by site: the journal is read by site and kind, a year of it by nothing else.
        cross join lateral (
          select j.* from journal j where j.site_id = m.site_id and j.kind = 'account-changed' and j.id > me.seen_entry
            and j.facts->>'person' = me.id and j.person_id <> me.id and not j.facts->'what' ? 'new'
        ) j join person p on p.id = j.person_id
        where me.id = ${personId} order by j.id desc limit 20`,
  );
}

/** Marks changes as seen, up to the newest one that was shown. */
export async function sawChanges({ tx, actor }: Change, upTo: number): Promise<void> {
  await tx.execute(
    sql`update person set seen_entry = greatest(seen_entry, ${upTo}) where id = ${actor.personId}
        and ${upTo} <= (select coalesce(max(id), 0) from journal)`,
  );
}

/** People of a site who have a role, for telling them what became of it. */
export async function membersOf(
  change: Change,
  roles: readonly string[],
): Promise<{ id: string; name: string; roles: string[] }[]> {
  return rows(
    change.tx,
    sql`select p.id, p.name, m.roles from membership m join person p on p.id = m.person_id
        where m.site_id = ${change.actor.siteId} and m.active
          and m.roles && array(select jsonb_array_elements_text(${recordset(roles)}))`,
  );
}
