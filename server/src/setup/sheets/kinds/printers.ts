import { sql } from 'drizzle-orm';
import type { Row } from '@hand-relay/core/reading/sheets';
import { recordset, rows } from '../../../platform/index.ts';
import { faultsOf, nothing, type Kind } from './kind.ts';

const stationsIn = (row: Row): string[] =>
  String(row['stations'] ?? '')
    .toUpperCase()
    .split(/[\s,;]+/)
    .filter(Boolean);

export const printers: Kind = {
  read: (on, site) =>
    rows<Row>(
      on,
      sql`select code as printer, name, prints, array_to_string(stations, ' ') as stations, retired from printer
          where site_id = ${site} order by code`,
    ),
  async faults(on, site, list) {
    // Each station prints labels in one place, and sheets in one place.
    const there = await printers.read(on, site);
    const after = new Map([...there, ...list.map((r) => r.values)].map((r) => [r['printer'], r]));
    return faultsOf(list, (r, fail) => {
      for (const [other, row] of after) {
        if (other === r['printer'] || row['retired'] === true) continue;
        const both = row['prints'] === 'all' || r['prints'] === 'all' || row['prints'] === r['prints'];
        const shared = stationsIn(r).find((station) => stationsIn(row).includes(station));
        if (both && shared) fail('stations', 'once', { first: `${String(other)}: ${shared}` });
      }
    });
  },
  refusesRetiring: nothing,
  async write({ tx, actor }, list) {
    const data = recordset(list.map((r) => ({ ...r, stations: stationsIn(r), retired: r['retired'] ?? false })));
    await tx.execute(sql`
      insert into printer (site_id, code, name, prints, stations, retired)
      select ${actor.siteId}, r.printer, r.name, r.prints, array(select jsonb_array_elements_text(r.stations)), r.retired
      from jsonb_to_recordset(${data}) as r(printer text, name text, prints text, stations jsonb, retired boolean)
      on conflict (site_id, code) do update set name = excluded.name, prints = excluded.prints, stations = excluded.stations,
        retired = excluded.retired`);
  },
};
