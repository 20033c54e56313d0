CREATE TABLE "packaging_due" (
	"unit_id" text PRIMARY KEY NOT NULL,
	"site_id" text NOT NULL,
	"type_id" text NOT NULL,
	"day" date NOT NULL,
	"posted_at" timestamp with time zone
);
--> statement-breakpoint
ALTER TABLE "packaging_due" ADD CONSTRAINT "packaging_due_site_id_site_id_fk" FOREIGN KEY ("site_id") REFERENCES "public"."site"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "packaging_due_open" ON "packaging_due" USING btree ("site_id","type_id","day") WHERE "packaging_due"."posted_at" is null;