import { sql } from 'drizzle-orm';
import { Refusal, rows, type Change } from '../../platform/index.ts';

/** @throws Refusal 409 `pallet-open` where a carton of the shipment stands on a pallet that is still built, at any level */
export async function mustNotBeStacked({ tx }: Change, shipment: string): Promise<void> {
  const [open] = await rows<{ number: string }>(
    tx,
    sql`
    with recursive up as (
      select p.id, p.number, p.state, p.outer_id from carton c join pallet p on p.id = c.pallet_id where c.shipment_id = ${shipment}
      union select p.id, p.number, p.state, p.outer_id from up join pallet p on p.id = up.outer_id
    ) select number from up where state = 'open' limit 1`,
  );
  if (open) throw new Refusal('pallet-open', { pallet: open.number });
}

/** Pallets and crates on which nothing is left that has not shipped have left too, the inner ones first. */
export async function shipPallets({ tx }: Change, shipment: string): Promise<void> {
  let inside = await rows<{ id: string }>(
    tx,
    sql`select distinct pallet_id as id from carton where shipment_id = ${shipment} and pallet_id is not null`,
  );
  while (inside.length > 0)
    inside = await rows<{ id: string }>(
      tx,
      sql`
      with gone as (
        update pallet p set state = 'shipped' where p.id in (select jsonb_array_elements_text(${JSON.stringify(inside.map((p) => p.id))}::jsonb))
          and not exists (select 1 from carton c where c.pallet_id = p.id and c.state <> 'shipped')
          and not exists (select 1 from pallet q where q.outer_id = p.id and q.state <> 'shipped')
        returning p.outer_id
      ) select distinct outer_id as id from gone where outer_id is not null`,
    );
}
