-- What the books say and nobody finds lies in the discrepancy place.
UPDATE place SET kind = 'discrepancy' WHERE kind = 'inquiry';
--> statement-breakpoint
CREATE OR REPLACE FUNCTION keep_balance() RETURNS trigger LANGUAGE plpgsql AS $$
DECLARE
  net record;
BEGIN
  -- Takings before puttings, and in one order everywhere: a serial number leaves before it arrives, and two
  -- transactions do not wait for each other crosswise.
  FOR net IN
    SELECT d.place_id, d.item_id, d.lot, d.serial, sum(d.units)::int AS units
    FROM (
      SELECT to_place AS place_id, item_id, lot, serial, units FROM moved
      UNION ALL
      SELECT from_place, item_id, lot, serial, -units FROM moved
    ) d
    JOIN place p ON p.id = d.place_id
    WHERE p.kind <> 'outside'
    GROUP BY 1, 2, 3, 4
    HAVING sum(d.units) <> 0
    ORDER BY sign(sum(d.units)), 1, 2, 3, 4
  LOOP
    IF net.units > 0 THEN
      INSERT INTO balance (place_id, item_id, lot, serial, units)
        VALUES (net.place_id, net.item_id, net.lot, net.serial, net.units)
        ON CONFLICT (place_id, item_id, lot, serial) DO UPDATE SET units = balance.units + excluded.units;
    ELSE
      UPDATE balance b SET units = b.units + net.units
        WHERE b.place_id = net.place_id AND b.item_id = net.item_id AND b.lot = net.lot AND b.serial = net.serial;
      IF NOT FOUND THEN
        RAISE EXCEPTION 'nothing lies in %', net.place_id
          USING ERRCODE = '23514', CONSTRAINT = 'balance_not_negative';
      END IF;
      DELETE FROM balance b
        WHERE b.place_id = net.place_id AND b.item_id = net.item_id AND b.lot = net.lot AND b.serial = net.serial
          AND b.units = 0;
    END IF;
  END LOOP;

  -- On hand is what lies at the site; what nobody finds is not on hand.
  FOR net IN
    SELECT p.site_id, d.item_id, d.lot, sum(d.units)::int AS units
    FROM (
      SELECT to_place AS place_id, item_id, lot, units FROM moved
      UNION ALL
      SELECT from_place, item_id, lot, -units FROM moved
    ) d
    JOIN place p ON p.id = d.place_id
    WHERE p.kind NOT IN ('outside', 'discrepancy')
    GROUP BY 1, 2, 3
    HAVING sum(d.units) <> 0
    ORDER BY 1, 2, 3
  LOOP
    IF net.units > 0 THEN
      INSERT INTO stock_total (site_id, item_id, lot, on_hand)
        VALUES (net.site_id, net.item_id, net.lot, net.units)
        ON CONFLICT (site_id, item_id, lot) DO UPDATE SET on_hand = stock_total.on_hand + excluded.on_hand;
    ELSE
      UPDATE stock_total t SET on_hand = t.on_hand + net.units
        WHERE t.site_id = net.site_id AND t.item_id = net.item_id AND t.lot = net.lot;
    END IF;
  END LOOP;
  RETURN NULL;
END $$;
