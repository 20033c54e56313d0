CREATE TABLE "tray" (
	"person_id" text NOT NULL,
	"site_id" text NOT NULL,
	"orders" jsonb NOT NULL,
	"lines" jsonb NOT NULL,
	CONSTRAINT "tray_person_id_site_id_pk" PRIMARY KEY("person_id","site_id")
);
--> statement-breakpoint
ALTER TABLE "tray" ADD CONSTRAINT "tray_person_id_person_id_fk" FOREIGN KEY ("person_id") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "tray" ADD CONSTRAINT "tray_site_id_site_id_fk" FOREIGN KEY ("site_id") REFERENCES "public"."site"("id") ON DELETE no action ON UPDATE no action;