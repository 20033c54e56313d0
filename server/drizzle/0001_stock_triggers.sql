-- Balances and totals follow the movements by themselves, so that no code can forget them.
CREATE FUNCTION keep_balance() RETURNS trigger LANGUAGE plpgsql AS $$
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
    WHERE p.kind NOT IN ('outside', 'inquiry')
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
--> statement-breakpoint
CREATE TRIGGER movement_keeps_balance AFTER INSERT ON movement
  REFERENCING NEW TABLE AS moved FOR EACH STATEMENT EXECUTE FUNCTION keep_balance();
--> statement-breakpoint
CREATE FUNCTION keep_reserved() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  IF TG_OP = 'INSERT' THEN
    INSERT INTO stock_total (site_id, item_id, lot, reserved)
      SELECT site_id, item_id, lot, 0 FROM after_rows GROUP BY 1, 2, 3
      ON CONFLICT DO NOTHING;
    UPDATE stock_total t SET reserved = t.reserved + n.units
      FROM (SELECT site_id, item_id, lot, sum(units) AS units FROM after_rows GROUP BY 1, 2, 3) n
      WHERE t.site_id = n.site_id AND t.item_id = n.item_id AND t.lot = n.lot;
  ELSIF TG_OP = 'DELETE' THEN
    UPDATE stock_total t SET reserved = t.reserved - n.units
      FROM (SELECT site_id, item_id, lot, sum(units) AS units FROM before_rows GROUP BY 1, 2, 3) n
      WHERE t.site_id = n.site_id AND t.item_id = n.item_id AND t.lot = n.lot;
  ELSE
    UPDATE stock_total t SET reserved = t.reserved + n.units
      FROM (
        SELECT site_id, item_id, lot, sum(units) AS units FROM (
          SELECT site_id, item_id, lot, units FROM after_rows
          UNION ALL
          SELECT site_id, item_id, lot, -units FROM before_rows
        ) d GROUP BY 1, 2, 3 HAVING sum(units) <> 0
      ) n
      WHERE t.site_id = n.site_id AND t.item_id = n.item_id AND t.lot = n.lot;
  END IF;
  RETURN NULL;
END $$;
--> statement-breakpoint
CREATE TRIGGER reservation_made AFTER INSERT ON reservation
  REFERENCING NEW TABLE AS after_rows FOR EACH STATEMENT EXECUTE FUNCTION keep_reserved();
--> statement-breakpoint
CREATE TRIGGER reservation_changed AFTER UPDATE ON reservation
  REFERENCING NEW TABLE AS after_rows OLD TABLE AS before_rows FOR EACH STATEMENT EXECUTE FUNCTION keep_reserved();
--> statement-breakpoint
CREATE TRIGGER reservation_given_back AFTER DELETE ON reservation
  REFERENCING OLD TABLE AS before_rows FOR EACH STATEMENT EXECUTE FUNCTION keep_reserved();
--> statement-breakpoint
-- The journal and the movements are history: nobody changes or removes a row.
CREATE FUNCTION refuse_change() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  RAISE EXCEPTION '% keeps history and is only added to', TG_TABLE_NAME;
END $$;
--> statement-breakpoint
CREATE TRIGGER journal_only_grows BEFORE UPDATE OR DELETE ON journal FOR EACH STATEMENT EXECUTE FUNCTION refuse_change();
--> statement-breakpoint
CREATE TRIGGER movement_only_grows BEFORE UPDATE OR DELETE ON movement FOR EACH STATEMENT EXECUTE FUNCTION refuse_change();
