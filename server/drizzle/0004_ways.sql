CREATE TABLE "picture" (
	"id" text PRIMARY KEY NOT NULL,
	"type" text NOT NULL,
	"bytes" "bytea" NOT NULL
);
--> statement-breakpoint
CREATE TABLE "membership" (
	"person_id" text NOT NULL,
	"site_id" text NOT NULL,
	"roles" text[] DEFAULT '{}' NOT NULL,
	"active" boolean DEFAULT true NOT NULL,
	CONSTRAINT "membership_person_id_site_id_pk" PRIMARY KEY("person_id","site_id")
);
--> statement-breakpoint
CREATE TABLE "role" (
	"site_id" text NOT NULL,
	"name" text NOT NULL,
	"rights" text[] NOT NULL,
	"retired" boolean DEFAULT false NOT NULL,
	CONSTRAINT "role_site_id_name_pk" PRIMARY KEY("site_id","name")
);
--> statement-breakpoint
CREATE TABLE "print_job" (
	"id" text PRIMARY KEY NOT NULL,
	"site_id" text NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"person_id" text NOT NULL,
	"station" text NOT NULL,
	"printer" text NOT NULL,
	"title" text NOT NULL,
	"document" text NOT NULL,
	"copies" integer NOT NULL,
	"pdf" "bytea" NOT NULL,
	"state" text NOT NULL,
	"note" text DEFAULT '' NOT NULL,
	"printed_at" timestamp with time zone
);
--> statement-breakpoint
CREATE TABLE "printer" (
	"site_id" text NOT NULL,
	"code" text NOT NULL,
	"name" text NOT NULL,
	"prints" text NOT NULL,
	"stations" text[] NOT NULL,
	"retired" boolean DEFAULT false NOT NULL,
	CONSTRAINT "printer_site_id_code_pk" PRIMARY KEY("site_id","code")
);
--> statement-breakpoint
ALTER TABLE "reservation" DROP CONSTRAINT "reservation_units";--> statement-breakpoint
ALTER TABLE "reservation" DROP CONSTRAINT "reservation_line_id_wave_id_lot_pk";--> statement-breakpoint
ALTER TABLE "reservation" ALTER COLUMN "wave_id" DROP NOT NULL;--> statement-breakpoint
ALTER TABLE "item" ADD COLUMN "shelf_life_days" integer;--> statement-breakpoint
ALTER TABLE "customer" ADD COLUMN "wishes" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "session" ADD COLUMN "site_id" text;--> statement-breakpoint
UPDATE "session" s SET "site_id" = p."site_id" FROM "person" p WHERE p."id" = s."person_id";--> statement-breakpoint
ALTER TABLE "session" ALTER COLUMN "site_id" SET NOT NULL;--> statement-breakpoint
ALTER TABLE "session" ADD COLUMN "browser" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "reservation" ADD COLUMN "firm" integer NOT NULL DEFAULT 0;--> statement-breakpoint
-- Until now all that was promised counted; the triggers that keep the totals must not see this as news.
ALTER TABLE "reservation" DISABLE TRIGGER USER;--> statement-breakpoint
UPDATE "reservation" SET "firm" = "units";--> statement-breakpoint
ALTER TABLE "reservation" ENABLE TRIGGER USER;--> statement-breakpoint
ALTER TABLE "reservation" ALTER COLUMN "firm" DROP DEFAULT;--> statement-breakpoint
ALTER TABLE "membership" ADD CONSTRAINT "membership_person_id_person_id_fk" FOREIGN KEY ("person_id") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "membership" ADD CONSTRAINT "membership_site_id_site_id_fk" FOREIGN KEY ("site_id") REFERENCES "public"."site"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "role" ADD CONSTRAINT "role_site_id_site_id_fk" FOREIGN KEY ("site_id") REFERENCES "public"."site"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "print_job" ADD CONSTRAINT "print_job_site_id_site_id_fk" FOREIGN KEY ("site_id") REFERENCES "public"."site"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "printer" ADD CONSTRAINT "printer_site_id_site_id_fk" FOREIGN KEY ("site_id") REFERENCES "public"."site"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "membership_site" ON "membership" USING btree ("site_id");--> statement-breakpoint
CREATE INDEX "print_job_at" ON "print_job" USING btree ("site_id","at");--> statement-breakpoint
CREATE INDEX "print_job_state" ON "print_job" USING btree ("site_id","printer","state");--> statement-breakpoint
ALTER TABLE "session" ADD CONSTRAINT "session_site_id_site_id_fk" FOREIGN KEY ("site_id") REFERENCES "public"."site"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
INSERT INTO "membership" ("person_id", "site_id", "roles", "active") SELECT "id", "site_id", "roles", "active" FROM "person";--> statement-breakpoint
INSERT INTO "role" ("site_id", "name", "rights") SELECT "id", 'supervisor', '{orders.see,orders.import,orders.release,orders.reserve,orders.cancel,waves.run,runs.pick,runs.arrange,orders.pack,shipments.confirm,trail.see,setup.change,printers.serve}' FROM "site";--> statement-breakpoint
INSERT INTO "role" ("site_id", "name", "rights") SELECT "id", 'service', '{orders.see,orders.import,orders.reserve,orders.cancel,trail.see}' FROM "site";--> statement-breakpoint
INSERT INTO "role" ("site_id", "name", "rights") SELECT "id", 'picker', '{runs.pick}' FROM "site";--> statement-breakpoint
INSERT INTO "role" ("site_id", "name", "rights") SELECT "id", 'packer', '{orders.pack}' FROM "site";--> statement-breakpoint
INSERT INTO "role" ("site_id", "name", "rights") SELECT "id", 'loader', '{shipments.confirm}' FROM "site";--> statement-breakpoint
INSERT INTO "role" ("site_id", "name", "rights") SELECT "id", 'manager', '{orders.see,trail.see}' FROM "site";--> statement-breakpoint
ALTER TABLE "person" DROP COLUMN "roles";--> statement-breakpoint
ALTER TABLE "person" DROP COLUMN "active";--> statement-breakpoint
ALTER TABLE "reservation" ADD CONSTRAINT "reservation_once" UNIQUE NULLS NOT DISTINCT("line_id","wave_id","lot");--> statement-breakpoint
ALTER TABLE "reservation" ADD CONSTRAINT "reservation_units" CHECK ("reservation"."units" >= 0 and "reservation"."firm" between 0 and "reservation"."units");--> statement-breakpoint
-- What is released and not reserved does not count as reserved until it is picked.
CREATE OR REPLACE FUNCTION keep_reserved() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  IF TG_OP = 'INSERT' THEN
    INSERT INTO stock_total (site_id, item_id, lot, reserved)
      SELECT site_id, item_id, lot, 0 FROM after_rows GROUP BY 1, 2, 3
      ON CONFLICT DO NOTHING;
    UPDATE stock_total t SET reserved = t.reserved + n.units
      FROM (SELECT site_id, item_id, lot, sum(firm) AS units FROM after_rows GROUP BY 1, 2, 3) n
      WHERE n.units <> 0 AND t.site_id = n.site_id AND t.item_id = n.item_id AND t.lot = n.lot;
  ELSIF TG_OP = 'DELETE' THEN
    UPDATE stock_total t SET reserved = t.reserved - n.units
      FROM (SELECT site_id, item_id, lot, sum(firm) AS units FROM before_rows GROUP BY 1, 2, 3) n
      WHERE n.units <> 0 AND t.site_id = n.site_id AND t.item_id = n.item_id AND t.lot = n.lot;
  ELSE
    UPDATE stock_total t SET reserved = t.reserved + n.units
      FROM (
        SELECT site_id, item_id, lot, sum(firm) AS units FROM (
          SELECT site_id, item_id, lot, firm FROM after_rows
          UNION ALL
          SELECT site_id, item_id, lot, -firm FROM before_rows
        ) d GROUP BY 1, 2, 3 HAVING sum(firm) <> 0
      ) n
      WHERE t.site_id = n.site_id AND t.item_id = n.item_id AND t.lot = n.lot;
  END IF;
  RETURN NULL;
END $$;
