CREATE TABLE "bin_count" (
	"id" text PRIMARY KEY NOT NULL,
	"site_id" text NOT NULL,
	"bin_id" text NOT NULL,
	"item_id" text NOT NULL,
	"lot" text DEFAULT '' NOT NULL,
	"state" text NOT NULL,
	"reason" text NOT NULL,
	"note" text DEFAULT '' NOT NULL,
	"pictures" jsonb DEFAULT '[]'::jsonb NOT NULL,
	"run_id" text,
	"pick_id" text,
	"asked_at" timestamp with time zone NOT NULL,
	"asked_by" text NOT NULL,
	"counted_at" timestamp with time zone,
	"counted_by" text,
	"settled_at" timestamp with time zone,
	"settled_by" text
);
--> statement-breakpoint
CREATE TABLE "bin_count_line" (
	"count_id" text NOT NULL,
	"serial" text DEFAULT '' NOT NULL,
	"booked" integer NOT NULL,
	"counted" integer NOT NULL,
	CONSTRAINT "bin_count_line_count_id_serial_pk" PRIMARY KEY("count_id","serial"),
	CONSTRAINT "bin_count_line_units" CHECK ("bin_count_line"."booked" >= 0 and "bin_count_line"."counted" >= 0)
);
--> statement-breakpoint
CREATE TABLE "put_back" (
	"id" text PRIMARY KEY NOT NULL,
	"site_id" text NOT NULL,
	"order_id" text NOT NULL,
	"run_id" text NOT NULL,
	"place_id" text NOT NULL,
	"bin_id" text NOT NULL,
	"item_id" text NOT NULL,
	"lot" text NOT NULL,
	"serials" jsonb DEFAULT '[]'::jsonb NOT NULL,
	"units" integer NOT NULL,
	"sequence" integer DEFAULT 0 NOT NULL,
	"asked_at" timestamp with time zone NOT NULL,
	"done_at" timestamp with time zone,
	"done_by" text,
	CONSTRAINT "put_back_units" CHECK ("put_back"."units" > 0)
);
--> statement-breakpoint
ALTER TABLE "pick" ADD COLUMN "rest_of" text;--> statement-breakpoint
ALTER TABLE "bin_count" ADD CONSTRAINT "bin_count_site_id_site_id_fk" FOREIGN KEY ("site_id") REFERENCES "public"."site"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "bin_count" ADD CONSTRAINT "bin_count_bin_id_place_id_fk" FOREIGN KEY ("bin_id") REFERENCES "public"."place"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "bin_count" ADD CONSTRAINT "bin_count_item_id_item_id_fk" FOREIGN KEY ("item_id") REFERENCES "public"."item"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "bin_count" ADD CONSTRAINT "bin_count_run_id_run_id_fk" FOREIGN KEY ("run_id") REFERENCES "public"."run"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "bin_count" ADD CONSTRAINT "bin_count_asked_by_person_id_fk" FOREIGN KEY ("asked_by") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "bin_count" ADD CONSTRAINT "bin_count_counted_by_person_id_fk" FOREIGN KEY ("counted_by") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "bin_count" ADD CONSTRAINT "bin_count_settled_by_person_id_fk" FOREIGN KEY ("settled_by") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "bin_count_line" ADD CONSTRAINT "bin_count_line_count_id_bin_count_id_fk" FOREIGN KEY ("count_id") REFERENCES "public"."bin_count"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "put_back" ADD CONSTRAINT "put_back_site_id_site_id_fk" FOREIGN KEY ("site_id") REFERENCES "public"."site"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "put_back" ADD CONSTRAINT "put_back_order_id_customer_order_id_fk" FOREIGN KEY ("order_id") REFERENCES "public"."customer_order"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "put_back" ADD CONSTRAINT "put_back_run_id_run_id_fk" FOREIGN KEY ("run_id") REFERENCES "public"."run"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "put_back" ADD CONSTRAINT "put_back_place_id_place_id_fk" FOREIGN KEY ("place_id") REFERENCES "public"."place"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "put_back" ADD CONSTRAINT "put_back_bin_id_place_id_fk" FOREIGN KEY ("bin_id") REFERENCES "public"."place"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "put_back" ADD CONSTRAINT "put_back_item_id_item_id_fk" FOREIGN KEY ("item_id") REFERENCES "public"."item"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "put_back" ADD CONSTRAINT "put_back_done_by_person_id_fk" FOREIGN KEY ("done_by") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE UNIQUE INDEX "bin_count_once" ON "bin_count" USING btree ("bin_id","item_id","lot") WHERE "bin_count"."state" in ('asked', 'counted');--> statement-breakpoint
CREATE INDEX "bin_count_state" ON "bin_count" USING btree ("site_id","state");--> statement-breakpoint
CREATE INDEX "bin_count_pick" ON "bin_count" USING btree ("pick_id");--> statement-breakpoint
CREATE INDEX "put_back_open" ON "put_back" USING btree ("site_id","run_id") WHERE "put_back"."done_at" is null;--> statement-breakpoint
CREATE INDEX "pick_rest" ON "pick" USING btree ("rest_of") WHERE "pick"."rest_of" is not null;