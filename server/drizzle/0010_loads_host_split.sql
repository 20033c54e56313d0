CREATE TABLE "host_message" (
	"id" bigint PRIMARY KEY GENERATED ALWAYS AS IDENTITY (sequence name "host_message_id_seq" INCREMENT BY 1 MINVALUE 1 MAXVALUE 9223372036854775807 START WITH 1 CACHE 1),
	"site_id" text NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"direction" text NOT NULL,
	"kind" text NOT NULL,
	"order_number" text NOT NULL,
	"facts" jsonb NOT NULL,
	"received_at" timestamp with time zone,
	CONSTRAINT "host_message_direction" CHECK ("host_message"."direction" in ('to-host', 'from-host'))
);
--> statement-breakpoint
CREATE TABLE "load" (
	"id" text PRIMARY KEY NOT NULL,
	"site_id" text NOT NULL,
	"number" integer NOT NULL,
	"vehicle_id" text NOT NULL,
	"departure_id" text,
	"leaves_at" timestamp with time zone,
	"door_id" text,
	"note" text DEFAULT '' NOT NULL,
	"state" text DEFAULT 'planned' NOT NULL,
	"created_at" timestamp with time zone NOT NULL,
	"created_by" text NOT NULL
);
--> statement-breakpoint
CREATE TABLE "load_order" (
	"order_id" text PRIMARY KEY NOT NULL,
	"load_id" text NOT NULL,
	"added_at" timestamp with time zone NOT NULL
);
--> statement-breakpoint
CREATE TABLE "vehicle_type" (
	"id" text PRIMARY KEY NOT NULL,
	"name" text NOT NULL,
	"length_mm" integer NOT NULL,
	"width_mm" integer NOT NULL,
	"height_mm" integer NOT NULL,
	"floor_places" integer NOT NULL,
	"max_load_g" integer NOT NULL,
	"retired" boolean DEFAULT false NOT NULL
);
--> statement-breakpoint
ALTER TABLE "order_line" DROP CONSTRAINT "line_asked";--> statement-breakpoint
ALTER TABLE "customer_order" ADD COLUMN "link" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "customer_order" ADD COLUMN "tags" text[] DEFAULT '{}' NOT NULL;--> statement-breakpoint
ALTER TABLE "customer_order" ADD COLUMN "split_of" text;--> statement-breakpoint
ALTER TABLE "host_message" ADD CONSTRAINT "host_message_site_id_site_id_fk" FOREIGN KEY ("site_id") REFERENCES "public"."site"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "load" ADD CONSTRAINT "load_site_id_site_id_fk" FOREIGN KEY ("site_id") REFERENCES "public"."site"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "load" ADD CONSTRAINT "load_vehicle_id_vehicle_type_id_fk" FOREIGN KEY ("vehicle_id") REFERENCES "public"."vehicle_type"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "load" ADD CONSTRAINT "load_departure_id_departure_id_fk" FOREIGN KEY ("departure_id") REFERENCES "public"."departure"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "load" ADD CONSTRAINT "load_door_id_place_id_fk" FOREIGN KEY ("door_id") REFERENCES "public"."place"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "load" ADD CONSTRAINT "load_created_by_person_id_fk" FOREIGN KEY ("created_by") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "load_order" ADD CONSTRAINT "load_order_order_id_customer_order_id_fk" FOREIGN KEY ("order_id") REFERENCES "public"."customer_order"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "load_order" ADD CONSTRAINT "load_order_load_id_load_id_fk" FOREIGN KEY ("load_id") REFERENCES "public"."load"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "host_message_site" ON "host_message" USING btree ("site_id","id");--> statement-breakpoint
CREATE INDEX "host_message_waiting" ON "host_message" USING btree ("site_id","id") WHERE "host_message"."direction" = 'to-host' and "host_message"."received_at" is null;--> statement-breakpoint
CREATE UNIQUE INDEX "load_number" ON "load" USING btree ("site_id","number");--> statement-breakpoint
CREATE INDEX "load_state" ON "load" USING btree ("site_id","state");--> statement-breakpoint
CREATE INDEX "load_order_load" ON "load_order" USING btree ("load_id");--> statement-breakpoint
CREATE UNIQUE INDEX "vehicle_type_name" ON "vehicle_type" USING btree ("name");--> statement-breakpoint
CREATE INDEX "order_split" ON "customer_order" USING btree ("split_of") WHERE "customer_order"."split_of" is not null;--> statement-breakpoint
ALTER TABLE "order_line" ADD CONSTRAINT "line_asked" CHECK ("order_line"."asked" >= 0 and "order_line"."cancelled" >= 0 and "order_line"."shipped" >= 0);