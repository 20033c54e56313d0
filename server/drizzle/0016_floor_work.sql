CREATE TABLE "activity" (
	"id" text PRIMARY KEY NOT NULL,
	"site_id" text NOT NULL,
	"person_id" text NOT NULL,
	"kind" text NOT NULL,
	"began_at" timestamp with time zone NOT NULL,
	"ended_at" timestamp with time zone
);
--> statement-breakpoint
ALTER TABLE "customer_order" ADD COLUMN "for_bench" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "activity" ADD CONSTRAINT "activity_site_id_site_id_fk" FOREIGN KEY ("site_id") REFERENCES "public"."site"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "activity" ADD CONSTRAINT "activity_person_id_person_id_fk" FOREIGN KEY ("person_id") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE UNIQUE INDEX "activity_one" ON "activity" USING btree ("person_id") WHERE "activity"."ended_at" is null;