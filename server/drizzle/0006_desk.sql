CREATE TABLE "shelf_wish" (
	"customer_id" text NOT NULL,
	"item_id" text NOT NULL,
	"days" integer NOT NULL,
	"retired" boolean DEFAULT false NOT NULL,
	CONSTRAINT "shelf_wish_customer_id_item_id_pk" PRIMARY KEY("customer_id","item_id")
);
--> statement-breakpoint
CREATE TABLE "kept_view" (
	"id" text PRIMARY KEY NOT NULL,
	"person_id" text NOT NULL,
	"site_id" text NOT NULL,
	"list" text NOT NULL,
	"name" text NOT NULL,
	"settings" jsonb NOT NULL
);
--> statement-breakpoint
CREATE TABLE "expected_supply" (
	"site_id" text NOT NULL,
	"reference" text NOT NULL,
	"item_id" text NOT NULL,
	"due" date NOT NULL,
	"units" integer NOT NULL,
	"source" text NOT NULL,
	"retired" boolean DEFAULT false NOT NULL,
	CONSTRAINT "expected_supply_site_id_reference_item_id_due_pk" PRIMARY KEY("site_id","reference","item_id","due"),
	CONSTRAINT "expected_units" CHECK ("expected_supply"."units" > 0)
);
--> statement-breakpoint
ALTER TABLE "customer_order" ADD COLUMN "lane_id" text;--> statement-breakpoint
ALTER TABLE "customer_order" ADD COLUMN "door_id" text;--> statement-breakpoint
ALTER TABLE "order_line" ADD COLUMN "fixed" integer;--> statement-breakpoint
ALTER TABLE "place" ADD COLUMN "blocked" text;--> statement-breakpoint
ALTER TABLE "shelf_wish" ADD CONSTRAINT "shelf_wish_customer_id_customer_id_fk" FOREIGN KEY ("customer_id") REFERENCES "public"."customer"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "shelf_wish" ADD CONSTRAINT "shelf_wish_item_id_item_id_fk" FOREIGN KEY ("item_id") REFERENCES "public"."item"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "kept_view" ADD CONSTRAINT "kept_view_person_id_person_id_fk" FOREIGN KEY ("person_id") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "kept_view" ADD CONSTRAINT "kept_view_site_id_site_id_fk" FOREIGN KEY ("site_id") REFERENCES "public"."site"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "expected_supply" ADD CONSTRAINT "expected_supply_site_id_site_id_fk" FOREIGN KEY ("site_id") REFERENCES "public"."site"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "expected_supply" ADD CONSTRAINT "expected_supply_item_id_item_id_fk" FOREIGN KEY ("item_id") REFERENCES "public"."item"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE UNIQUE INDEX "kept_view_name" ON "kept_view" USING btree ("person_id","site_id","list","name");--> statement-breakpoint
ALTER TABLE "customer_order" ADD CONSTRAINT "customer_order_lane_id_place_id_fk" FOREIGN KEY ("lane_id") REFERENCES "public"."place"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "customer_order" ADD CONSTRAINT "customer_order_door_id_place_id_fk" FOREIGN KEY ("door_id") REFERENCES "public"."place"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "order_line" ADD CONSTRAINT "line_fixed" CHECK ("order_line"."fixed" >= 0);--> statement-breakpoint
UPDATE "role" SET "rights" = array_append("rights", 'orders.choose') WHERE 'orders.release' = ANY("rights");
