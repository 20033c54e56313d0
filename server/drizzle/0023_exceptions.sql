CREATE TABLE "exception" (
	"id" text PRIMARY KEY NOT NULL,
	"site_id" text NOT NULL,
	"kind" text NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"person_id" text NOT NULL,
	"order_id" text,
	"line_id" text,
	"run_id" text,
	"pick_id" text,
	"place_id" text,
	"item_id" text,
	"lot" text DEFAULT '' NOT NULL,
	"units" integer DEFAULT 0 NOT NULL,
	"reason" text DEFAULT '' NOT NULL,
	"note" text DEFAULT '' NOT NULL,
	"facts" jsonb DEFAULT '{}'::jsonb NOT NULL,
	"settled_at" timestamp with time zone,
	"settled_by" text,
	"settled_how" text,
	"settled_note" text DEFAULT '' NOT NULL
);
--> statement-breakpoint
ALTER TABLE "exception" ADD CONSTRAINT "exception_site_id_site_id_fk" FOREIGN KEY ("site_id") REFERENCES "public"."site"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "exception" ADD CONSTRAINT "exception_person_id_person_id_fk" FOREIGN KEY ("person_id") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "exception" ADD CONSTRAINT "exception_order_id_customer_order_id_fk" FOREIGN KEY ("order_id") REFERENCES "public"."customer_order"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "exception" ADD CONSTRAINT "exception_line_id_order_line_id_fk" FOREIGN KEY ("line_id") REFERENCES "public"."order_line"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "exception" ADD CONSTRAINT "exception_run_id_run_id_fk" FOREIGN KEY ("run_id") REFERENCES "public"."run"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "exception" ADD CONSTRAINT "exception_place_id_place_id_fk" FOREIGN KEY ("place_id") REFERENCES "public"."place"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "exception" ADD CONSTRAINT "exception_item_id_item_id_fk" FOREIGN KEY ("item_id") REFERENCES "public"."item"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "exception" ADD CONSTRAINT "exception_settled_by_person_id_fk" FOREIGN KEY ("settled_by") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "exception_open" ON "exception" USING btree ("site_id") WHERE "exception"."settled_at" is null;--> statement-breakpoint
CREATE INDEX "exception_settled" ON "exception" USING btree ("site_id","settled_at");--> statement-breakpoint
CREATE INDEX "exception_line" ON "exception" USING btree ("line_id") WHERE "exception"."settled_at" is null;--> statement-breakpoint
CREATE INDEX "exception_order" ON "exception" USING btree ("order_id") WHERE "exception"."settled_at" is null;