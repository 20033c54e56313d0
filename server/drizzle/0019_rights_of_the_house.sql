CREATE TABLE "known_device" (
	"person_id" text NOT NULL,
	"device" text NOT NULL,
	"at" timestamp with time zone NOT NULL,
	CONSTRAINT "known_device_person_id_device_pk" PRIMARY KEY("person_id","device")
);
--> statement-breakpoint
CREATE TABLE "sign_in_try" (
	"key" text PRIMARY KEY NOT NULL,
	"tries" integer NOT NULL,
	"since" timestamp with time zone NOT NULL
);
--> statement-breakpoint
CREATE TABLE "house" (
	"id" integer PRIMARY KEY DEFAULT 1 NOT NULL,
	"setup_token" text
);
--> statement-breakpoint
ALTER TABLE "item" ALTER COLUMN "value_minor" SET DATA TYPE bigint;--> statement-breakpoint
ALTER TABLE "carton" ALTER COLUMN "weight_g" SET DATA TYPE bigint;--> statement-breakpoint
ALTER TABLE "carton_type" ALTER COLUMN "cost_minor" SET DATA TYPE bigint;--> statement-breakpoint
ALTER TABLE "person" ADD COLUMN "seen_entry" bigint DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE "print_job" ADD COLUMN "needs" text[] DEFAULT '{"setup.change"}' NOT NULL;--> statement-breakpoint
ALTER TABLE "print_job" ALTER COLUMN "needs" DROP DEFAULT;--> statement-breakpoint
UPDATE "print_job" SET "needs" = '{"orders.pack","shipments.confirm","runs.pick","orders.see","printers.serve"}' WHERE "document" NOT LIKE 'badges%';--> statement-breakpoint
-- What was printed is not a reason to show badges to more people than those who make them.
UPDATE "print_job" SET "needs" = '{"setup.change","printers.serve"}' WHERE "document" LIKE 'badges%';--> statement-breakpoint
ALTER TABLE "known_device" ADD CONSTRAINT "known_device_person_id_person_id_fk" FOREIGN KEY ("person_id") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "known_device_at" ON "known_device" USING btree ("at");--> statement-breakpoint
CREATE INDEX "sign_in_try_since" ON "sign_in_try" USING btree ("since");--> statement-breakpoint
INSERT INTO "house" ("id") VALUES (1);--> statement-breakpoint
-- Rights of the house are apart from those of a site: each site gets the role of administrator, and those who set up
-- most of the sites are the administrators to begin with.
INSERT INTO "role" ("site_id", "name", "rights")
SELECT "id", 'administrator', '{"orders.see","orders.import","orders.release","orders.reserve","orders.choose","orders.cancel","waves.run","runs.pick","runs.arrange","orders.pack","shipments.confirm","trail.see","setup.change","printers.serve","house.people","house.items","house.backups","house.sites"}' FROM "site"
ON CONFLICT DO NOTHING;--> statement-breakpoint
WITH setters AS (
  SELECT m."person_id", count(DISTINCT m."site_id") AS sites FROM "membership" m
  JOIN "role" r ON r."site_id" = m."site_id" AND r."name" = ANY(m."roles") AND NOT r."retired"
  WHERE m."active" AND 'setup.change' = ANY(r."rights") GROUP BY 1
)
UPDATE "membership" m SET "roles" = array_append(m."roles", 'administrator') FROM setters s
WHERE s."person_id" = m."person_id" AND m."active" AND s.sites = (SELECT max(sites) FROM setters)
  AND NOT 'administrator' = ANY(m."roles");
