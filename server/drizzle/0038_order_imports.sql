CREATE TABLE "order_import" (
	"id" text PRIMARY KEY NOT NULL,
	"site_id" text NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"person_id" text NOT NULL,
	"document" text NOT NULL,
	"sender" text NOT NULL,
	"source" text NOT NULL,
	"new" integer NOT NULL,
	"changed" integer NOT NULL,
	"same" integer NOT NULL,
	"faults" integer NOT NULL,
	"errors" jsonb NOT NULL,
	"orders" jsonb NOT NULL,
	"undone_at" timestamp with time zone
);
--> statement-breakpoint
CREATE TABLE "order_sender" (
	"id" text PRIMARY KEY NOT NULL,
	"site_id" text NOT NULL,
	"name" text NOT NULL,
	"layout" jsonb NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"person_id" text NOT NULL
);
--> statement-breakpoint
ALTER TABLE "order_import" ADD CONSTRAINT "order_import_site_id_site_id_fk" FOREIGN KEY ("site_id") REFERENCES "public"."site"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "order_import" ADD CONSTRAINT "order_import_person_id_person_id_fk" FOREIGN KEY ("person_id") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "order_sender" ADD CONSTRAINT "order_sender_site_id_site_id_fk" FOREIGN KEY ("site_id") REFERENCES "public"."site"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "order_sender" ADD CONSTRAINT "order_sender_person_id_person_id_fk" FOREIGN KEY ("person_id") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "order_import_at" ON "order_import" USING btree ("site_id","at");--> statement-breakpoint
CREATE UNIQUE INDEX "order_sender_name" ON "order_sender" USING btree ("site_id",lower("name"));