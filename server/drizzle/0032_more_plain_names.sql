-- Units that are put away, units that are hard-allocated, and the settings of a site are called so.
ALTER TABLE "put_back" RENAME TO "put_away";
--> statement-breakpoint
ALTER INDEX "put_back_pkey" RENAME TO "put_away_pkey";
--> statement-breakpoint
ALTER INDEX "put_back_open" RENAME TO "put_away_open";
--> statement-breakpoint
ALTER TABLE "put_away" RENAME CONSTRAINT "put_back_units" TO "put_away_units";
--> statement-breakpoint
ALTER TABLE "put_away" RENAME CONSTRAINT "put_back_site_id_site_id_fk" TO "put_away_site_id_site_id_fk";
--> statement-breakpoint
ALTER TABLE "put_away" RENAME CONSTRAINT "put_back_order_id_customer_order_id_fk" TO "put_away_order_id_customer_order_id_fk";
--> statement-breakpoint
ALTER TABLE "put_away" RENAME CONSTRAINT "put_back_run_id_run_id_fk" TO "put_away_run_id_run_id_fk";
--> statement-breakpoint
ALTER TABLE "put_away" RENAME CONSTRAINT "put_back_place_id_place_id_fk" TO "put_away_place_id_place_id_fk";
--> statement-breakpoint
ALTER TABLE "put_away" RENAME CONSTRAINT "put_back_bin_id_place_id_fk" TO "put_away_bin_id_place_id_fk";
--> statement-breakpoint
ALTER TABLE "put_away" RENAME CONSTRAINT "put_back_item_id_item_id_fk" TO "put_away_item_id_item_id_fk";
--> statement-breakpoint
ALTER TABLE "put_away" RENAME CONSTRAINT "put_back_done_by_person_id_fk" TO "put_away_done_by_person_id_fk";
--> statement-breakpoint
ALTER TABLE "reservation" RENAME COLUMN "firm" TO "hard_allocated";
--> statement-breakpoint
ALTER TABLE "job" RENAME COLUMN "told" TO "facts";
--> statement-breakpoint
ALTER TABLE "order_line" RENAME COLUMN "fixed" TO "manually_allocated";
--> statement-breakpoint
ALTER TABLE "order_line" RENAME CONSTRAINT "line_fixed" TO "line_manually_allocated";
--> statement-breakpoint
UPDATE site SET settings = (settings - 'way') || jsonb_build_object('work', settings->'way') WHERE settings ? 'way';
--> statement-breakpoint
-- In one order everywhere, as movements do it: two transactions do not wait for each other crosswise.
CREATE OR REPLACE FUNCTION keep_reserved() RETURNS trigger LANGUAGE plpgsql AS $$
DECLARE
  net record;
BEGIN
  IF TG_OP = 'INSERT' THEN
    FOR net IN
      SELECT site_id, item_id, lot, sum(hard_allocated)::int AS units FROM after_rows GROUP BY 1, 2, 3 ORDER BY 1, 2, 3
    LOOP
      INSERT INTO stock_total (site_id, item_id, lot, reserved) VALUES (net.site_id, net.item_id, net.lot, 0)
        ON CONFLICT DO NOTHING;
      UPDATE stock_total t SET reserved = t.reserved + net.units
        WHERE t.site_id = net.site_id AND t.item_id = net.item_id AND t.lot = net.lot;
    END LOOP;
  ELSIF TG_OP = 'DELETE' THEN
    FOR net IN
      SELECT site_id, item_id, lot, sum(hard_allocated)::int AS units FROM before_rows
      GROUP BY 1, 2, 3 HAVING sum(hard_allocated) <> 0 ORDER BY 1, 2, 3
    LOOP
      UPDATE stock_total t SET reserved = t.reserved - net.units
        WHERE t.site_id = net.site_id AND t.item_id = net.item_id AND t.lot = net.lot;
    END LOOP;
  ELSE
    FOR net IN
      SELECT site_id, item_id, lot, sum(units)::int AS units FROM (
        SELECT site_id, item_id, lot, hard_allocated AS units FROM after_rows
        UNION ALL
        SELECT site_id, item_id, lot, -hard_allocated FROM before_rows
      ) d GROUP BY 1, 2, 3 HAVING sum(units) <> 0 ORDER BY 1, 2, 3
    LOOP
      UPDATE stock_total t SET reserved = t.reserved + net.units
        WHERE t.site_id = net.site_id AND t.item_id = net.item_id AND t.lot = net.lot;
    END LOOP;
  END IF;
  RETURN NULL;
END $$;
--> statement-breakpoint
ALTER TABLE journal DISABLE TRIGGER journal_only_grows;
--> statement-breakpoint
UPDATE journal SET kind = CASE kind WHEN 'way-changed' THEN 'settings-changed' WHEN 'line-fixed' THEN 'line-allocated' ELSE 'bench-note' END
  WHERE kind IN ('way-changed', 'line-fixed', 'bench-told');
--> statement-breakpoint
ALTER TABLE journal ENABLE TRIGGER journal_only_grows;
