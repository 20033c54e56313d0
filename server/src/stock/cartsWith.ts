import { sql, type SQL } from 'drizzle-orm';

/**
 * Carts that were left with goods of an order on them, and the lane where each is, as a list of `{ cart, lane }`.
 *
 * @param order the order's id, as the query around names it
 */
export const cartsWith = (order: SQL): SQL => sql`coalesce((
  select jsonb_agg(distinct jsonb_build_object('cart', coalesce(r.cart_code, r.call_sign), 'lane', p.code)) from run_position q
  join run r on r.id = q.run_id and r.state = 'left' join place p on p.id = r.lane_id
  where q.order_id = ${order} and exists (select 1 from balance b where b.place_id = q.place_id and b.units > 0)), '[]')`;

/** The front of the cart of a run `r`: of its type once it has one, else with as many places as the plan gave it. */
export const cartFrontOf = sql`coalesce((
  select jsonb_build_object('places', t.positions, 'across', t.across) from cart c join cart_type t on t.id = c.type_id
  where c.site_id = r.site_id and c.code = r.cart_code), jsonb_build_object('places', r.positions, 'across', null))`;
