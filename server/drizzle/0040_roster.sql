CREATE TABLE "roster" (
	"site_id" text NOT NULL,
	"person_id" text NOT NULL,
	"day" date NOT NULL,
	"starts" text NOT NULL,
	"ends" text NOT NULL,
	"team" text DEFAULT '' NOT NULL,
	"retired" boolean DEFAULT false NOT NULL,
	CONSTRAINT "roster_site_id_person_id_day_starts_pk" PRIMARY KEY("site_id","person_id","day","starts")
);
--> statement-breakpoint
ALTER TABLE "roster" ADD CONSTRAINT "roster_site_id_site_id_fk" FOREIGN KEY ("site_id") REFERENCES "public"."site"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "roster" ADD CONSTRAINT "roster_person_id_person_id_fk" FOREIGN KEY ("person_id") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "roster_day" ON "roster" USING btree ("site_id","day");