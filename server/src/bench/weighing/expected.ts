import { sql } from 'drizzle-orm';
import {
  enteredWeight,
  expectWeight,
  isExpected,
  learnWeights,
  type Expected,
  type ItemWeight,
  type Weighed,
} from '@hand-relay/core/handling/weighing';
import { anyOf, recordset, rows, type Change, type Db, type Tx } from '../../platform/index.ts';

interface Contents {
  carton: string;
  tareG: number;
  measuredG: number | null;
  goods: (Weighed & { item: string; enteredG: number })[];
}

/** What lies in cartons, each kind of goods with what is known of its weight. */
async function contentsOf(on: Db | Tx, cartons: readonly string[]): Promise<Contents[]> {
  const found = await rows<{
    carton: string;
    tareG: number;
    measuredG: number | null;
    goods: { item: string; units: number; enteredG: number; learnt: ItemWeight | null }[];
  }>(
    on,
    sql`
    select c.id as carton, t.tare_g as "tareG", c.measured_g::float8 as "measuredG", coalesce((
      select jsonb_agg(jsonb_build_object('item', i.id, 'units', s.units, 'enteredG', i.weight_g, 'learnt', case when w.item_id is not null then
               jsonb_build_object('meanG', w.mean_g, 'variance', w.variance, 'spread', w.spread, 'cartons', w.cartons) end) order by i.id)
      from (select item_id, sum(units)::int as units from balance where place_id = c.place_id group by item_id) s join item i on i.id = s.item_id
      left join item_weight w on w.item_id = i.id and w.entered_g = i.weight_g
    ), '[]') as goods
    from carton c join carton_type t on t.id = c.type_id where c.id = ${anyOf([...cartons])}`,
  );
  return found.map(({ goods, ...carton }) => ({
    ...carton,
    goods: goods.map(({ learnt, ...g }) => ({ ...g, weight: learnt ?? enteredWeight(g.enteredG) })),
  }));
}

/** What each of these cartons should weigh now, by its id. */
export async function expectedWeights(on: Db | Tx, cartons: readonly string[]): Promise<Map<string, Expected>> {
  if (cartons.length === 0) return new Map();
  const found = await contentsOf(on, cartons);
  return new Map(found.map(({ carton, tareG, goods }) => [carton, expectWeight(tareG, goods)]));
}

/**
 * What a carton weighs that is closed: what the scale showed, unless the packer says that the scale is wrong; else what
 * its goods are entered with. A weight that is right teaches what its items weigh.
 */
export async function closingWeight(
  { tx }: Change,
  cartonId: string,
  reason: string | null,
): Promise<{ weightG: number; expectedG: number | null }> {
  const [carton] = await contentsOf(tx, [cartonId]);
  const { tareG, goods, measuredG } = carton!;
  const entered = tareG + goods.reduce((sum, { units, enteredG }) => sum + units * enteredG, 0);
  if (measuredG === null || reason === 'scale') return { weightG: entered, expectedG: null };
  const expected = expectWeight(tareG, goods);
  // Heavy packing says nothing about the goods. Two packers who close at once may overwrite one another's lesson: the next
  // carton teaches it again, and nobody waits for a lock.
  if (goods.length > 0 && (reason === 'counted' || isExpected(measuredG, expected))) {
    const learnt = learnWeights(tareG, goods, measuredG).map((weight, i) => ({
      item: goods[i]!.item,
      entered: goods[i]!.enteredG,
      ...weight,
    }));
    await tx.execute(sql`
      insert into item_weight (item_id, entered_g, mean_g, variance, spread, cartons)
      select l.item, l.entered, l."meanG", l.variance, l.spread, l.cartons
      from jsonb_to_recordset(${recordset(learnt)}) as l(item text, entered int, "meanG" float8, variance float8, spread float8, cartons int)
      order by l.item
      on conflict (item_id) do update set entered_g = excluded.entered_g, mean_g = excluded.mean_g, variance = excluded.variance,
        spread = excluded.spread, cartons = excluded.cartons`);
  }
  return { weightG: measuredG, expectedG: expected.grams };
}
