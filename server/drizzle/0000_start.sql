CREATE TABLE "item" (
	"id" text PRIMARY KEY NOT NULL,
	"sku" text NOT NULL,
	"name" text NOT NULL,
	"unit" text NOT NULL,
	"length_mm" integer NOT NULL,
	"width_mm" integer NOT NULL,
	"height_mm" integer NOT NULL,
	"weight_g" integer NOT NULL,
	"handling" text NOT NULL,
	"temperature" text NOT NULL,
	"apart" text,
	"tracks_lot" boolean NOT NULL,
	"tracks_serial" boolean NOT NULL,
	"value_minor" integer NOT NULL,
	"picture" text NOT NULL
);
--> statement-breakpoint
CREATE TABLE "item_pack" (
	"gtin" text PRIMARY KEY NOT NULL,
	"item_id" text NOT NULL,
	"level" text NOT NULL,
	"units" integer NOT NULL
);
--> statement-breakpoint
CREATE TABLE "lot" (
	"item_id" text NOT NULL,
	"lot" text NOT NULL,
	"best_before" date,
	CONSTRAINT "lot_item_id_lot_pk" PRIMARY KEY("item_id","lot")
);
--> statement-breakpoint
CREATE TABLE "idempotency" (
	"person_id" text NOT NULL,
	"key" text NOT NULL,
	"request" text NOT NULL,
	"status" integer NOT NULL,
	"answer" jsonb,
	"at" timestamp with time zone NOT NULL,
	CONSTRAINT "idempotency_person_id_key_pk" PRIMARY KEY("person_id","key")
);
--> statement-breakpoint
CREATE TABLE "journal" (
	"id" bigint PRIMARY KEY GENERATED ALWAYS AS IDENTITY (sequence name "journal_id_seq" INCREMENT BY 1 MINVALUE 1 MAXVALUE 9223372036854775807 START WITH 1 CACHE 1),
	"at" timestamp with time zone NOT NULL,
	"site_id" text NOT NULL,
	"person_id" text,
	"device" text NOT NULL,
	"request_id" text NOT NULL,
	"kind" text NOT NULL,
	"order_id" text,
	"wave_id" text,
	"run_id" text,
	"facts" jsonb NOT NULL
);
--> statement-breakpoint
CREATE TABLE "carrier" (
	"id" text PRIMARY KEY NOT NULL,
	"name" text NOT NULL,
	"tracking" jsonb NOT NULL
);
--> statement-breakpoint
CREATE TABLE "customer" (
	"id" text PRIMARY KEY NOT NULL,
	"number" text NOT NULL,
	"name" text NOT NULL,
	"class" text NOT NULL,
	"min_shelf_days" integer DEFAULT 0 NOT NULL,
	"street" text NOT NULL,
	"postcode" text NOT NULL,
	"city" text NOT NULL,
	"country" text NOT NULL
);
--> statement-breakpoint
CREATE TABLE "departure" (
	"id" text PRIMARY KEY NOT NULL,
	"site_id" text NOT NULL,
	"name" text NOT NULL,
	"service_id" text NOT NULL,
	"cut_off" text NOT NULL,
	"days" smallint[] NOT NULL,
	"lane_id" text,
	"door_id" text,
	"channel" text
);
--> statement-breakpoint
CREATE TABLE "customer_order" (
	"id" text PRIMARY KEY NOT NULL,
	"site_id" text NOT NULL,
	"number" text NOT NULL,
	"channel" text NOT NULL,
	"customer_id" text NOT NULL,
	"reference" text NOT NULL,
	"due" date NOT NULL,
	"leaves_at" timestamp with time zone,
	"departure_id" text,
	"priority" smallint NOT NULL,
	"ship_complete" boolean NOT NULL,
	"ship_name" text NOT NULL,
	"ship_street" text NOT NULL,
	"ship_postcode" text NOT NULL,
	"ship_city" text NOT NULL,
	"ship_country" text NOT NULL,
	"note" text NOT NULL,
	"document" text NOT NULL,
	"status" text DEFAULT 'open' NOT NULL,
	"created_at" timestamp with time zone NOT NULL,
	"version" integer DEFAULT 1 NOT NULL
);
--> statement-breakpoint
CREATE TABLE "order_line" (
	"id" text PRIMARY KEY NOT NULL,
	"order_id" text NOT NULL,
	"line" integer NOT NULL,
	"item_id" text NOT NULL,
	"quantity" integer NOT NULL,
	"pack" text NOT NULL,
	"note" text NOT NULL,
	"asked" integer NOT NULL,
	"cancelled" integer DEFAULT 0 NOT NULL,
	"released" integer DEFAULT 0 NOT NULL,
	"picked" integer DEFAULT 0 NOT NULL,
	"packed" integer DEFAULT 0 NOT NULL,
	"shipped" integer DEFAULT 0 NOT NULL,
	CONSTRAINT "line_asked" CHECK ("order_line"."asked" > 0 and "order_line"."cancelled" >= 0 and "order_line"."shipped" >= 0),
	CONSTRAINT "line_released" CHECK ("order_line"."released" <= "order_line"."asked" - "order_line"."cancelled"),
	CONSTRAINT "line_picked" CHECK ("order_line"."picked" <= "order_line"."released"),
	CONSTRAINT "line_packed" CHECK ("order_line"."packed" <= "order_line"."picked"),
	CONSTRAINT "line_shipped" CHECK ("order_line"."shipped" <= "order_line"."packed")
);
--> statement-breakpoint
CREATE TABLE "service" (
	"id" text PRIMARY KEY NOT NULL,
	"carrier_id" text NOT NULL,
	"name" text NOT NULL
);
--> statement-breakpoint
CREATE TABLE "wave_line" (
	"wave_id" text NOT NULL,
	"line_id" text NOT NULL,
	"units" integer NOT NULL,
	CONSTRAINT "wave_line_wave_id_line_id_pk" PRIMARY KEY("wave_id","line_id")
);
--> statement-breakpoint
CREATE TABLE "person" (
	"id" text PRIMARY KEY NOT NULL,
	"site_id" text NOT NULL,
	"name" text NOT NULL,
	"login" text,
	"badge" text,
	"password_hash" text,
	"pin_hash" text,
	"roles" text[] DEFAULT '{}' NOT NULL,
	"active" boolean DEFAULT true NOT NULL,
	"failures" integer DEFAULT 0 NOT NULL,
	"locked_until" timestamp with time zone
);
--> statement-breakpoint
CREATE TABLE "session" (
	"id" text PRIMARY KEY NOT NULL,
	"person_id" text NOT NULL,
	"device" text NOT NULL,
	"created_at" timestamp with time zone NOT NULL,
	"expires_at" timestamp with time zone NOT NULL
);
--> statement-breakpoint
CREATE TABLE "counter" (
	"site_id" text NOT NULL,
	"name" text NOT NULL,
	"last" bigint DEFAULT 0 NOT NULL,
	CONSTRAINT "counter_site_id_name_pk" PRIMARY KEY("site_id","name")
);
--> statement-breakpoint
CREATE TABLE "place" (
	"id" text PRIMARY KEY NOT NULL,
	"site_id" text NOT NULL,
	"kind" text NOT NULL,
	"code" text NOT NULL,
	"name" text DEFAULT '' NOT NULL,
	"zone_id" text,
	"aisle" text,
	"y" double precision,
	"side" text,
	"level" integer
);
--> statement-breakpoint
CREATE TABLE "site" (
	"id" text PRIMARY KEY NOT NULL,
	"code" text NOT NULL,
	"name" text NOT NULL,
	"street" text NOT NULL,
	"city" text NOT NULL,
	"time_zone" text NOT NULL,
	"currency" text NOT NULL,
	"gs1_prefix" text NOT NULL,
	"sscc_extension" integer DEFAULT 0 NOT NULL,
	"floor" jsonb NOT NULL,
	"start" jsonb NOT NULL
);
--> statement-breakpoint
CREATE TABLE "zone" (
	"id" text PRIMARY KEY NOT NULL,
	"site_id" text NOT NULL,
	"code" text NOT NULL,
	"name" text NOT NULL,
	"temperature" text NOT NULL,
	"locked" boolean DEFAULT false NOT NULL
);
--> statement-breakpoint
CREATE TABLE "balance" (
	"place_id" text NOT NULL,
	"item_id" text NOT NULL,
	"lot" text NOT NULL,
	"serial" text NOT NULL,
	"units" integer NOT NULL,
	CONSTRAINT "balance_place_id_item_id_lot_serial_pk" PRIMARY KEY("place_id","item_id","lot","serial"),
	CONSTRAINT "balance_not_negative" CHECK ("balance"."units" >= 0)
);
--> statement-breakpoint
CREATE TABLE "movement" (
	"id" bigint PRIMARY KEY GENERATED ALWAYS AS IDENTITY (sequence name "movement_id_seq" INCREMENT BY 1 MINVALUE 1 MAXVALUE 9223372036854775807 START WITH 1 CACHE 1),
	"at" timestamp with time zone NOT NULL,
	"site_id" text NOT NULL,
	"from_place" text NOT NULL,
	"to_place" text NOT NULL,
	"item_id" text NOT NULL,
	"lot" text DEFAULT '' NOT NULL,
	"serial" text DEFAULT '' NOT NULL,
	"units" integer NOT NULL,
	"reason" text NOT NULL,
	"document" text DEFAULT '' NOT NULL,
	"person_id" text,
	CONSTRAINT "movement_units" CHECK ("movement"."units" > 0),
	CONSTRAINT "movement_goes_somewhere" CHECK ("movement"."from_place" <> "movement"."to_place"),
	CONSTRAINT "movement_serial_single" CHECK ("movement"."serial" = '' or "movement"."units" = 1)
);
--> statement-breakpoint
CREATE TABLE "stock_total" (
	"site_id" text NOT NULL,
	"item_id" text NOT NULL,
	"lot" text NOT NULL,
	"on_hand" integer DEFAULT 0 NOT NULL,
	"reserved" integer DEFAULT 0 NOT NULL,
	CONSTRAINT "stock_total_site_id_item_id_lot_pk" PRIMARY KEY("site_id","item_id","lot"),
	CONSTRAINT "stock_not_negative" CHECK ("stock_total"."on_hand" >= 0 and "stock_total"."reserved" >= 0),
	CONSTRAINT "stock_reserved_within" CHECK ("stock_total"."reserved" <= "stock_total"."on_hand")
);
--> statement-breakpoint
CREATE TABLE "cart" (
	"site_id" text NOT NULL,
	"code" text NOT NULL,
	"type_id" text NOT NULL,
	CONSTRAINT "cart_site_id_code_pk" PRIMARY KEY("site_id","code")
);
--> statement-breakpoint
CREATE TABLE "cart_type" (
	"id" text PRIMARY KEY NOT NULL,
	"name" text NOT NULL,
	"positions" integer NOT NULL,
	"max_weight_g" integer NOT NULL,
	"max_volume_cm3" integer NOT NULL
);
--> statement-breakpoint
CREATE TABLE "carton" (
	"id" text PRIMARY KEY NOT NULL,
	"site_id" text NOT NULL,
	"order_id" text NOT NULL,
	"shipment_id" text NOT NULL,
	"type_id" text NOT NULL,
	"place_id" text NOT NULL,
	"number" integer NOT NULL,
	"sscc" text,
	"state" text NOT NULL,
	"weight_g" integer,
	"bench" text NOT NULL,
	"closed_at" timestamp with time zone,
	"closed_by" text
);
--> statement-breakpoint
CREATE TABLE "carton_line" (
	"carton_id" text NOT NULL,
	"line_id" text NOT NULL,
	"lot" text NOT NULL,
	"serial" text NOT NULL,
	"units" integer NOT NULL,
	CONSTRAINT "carton_line_carton_id_line_id_lot_serial_pk" PRIMARY KEY("carton_id","line_id","lot","serial"),
	CONSTRAINT "carton_line_units" CHECK ("carton_line"."units" >= 0)
);
--> statement-breakpoint
CREATE TABLE "carton_type" (
	"id" text PRIMARY KEY NOT NULL,
	"code" text NOT NULL,
	"name" text NOT NULL,
	"inner_mm" integer[] NOT NULL,
	"tare_g" integer NOT NULL,
	"max_weight_g" integer NOT NULL,
	"cost_minor" integer NOT NULL
);
--> statement-breakpoint
CREATE TABLE "pallet_type" (
	"id" text PRIMARY KEY NOT NULL,
	"name" text NOT NULL,
	"length_mm" integer NOT NULL,
	"width_mm" integer NOT NULL,
	"height_mm" integer NOT NULL,
	"tare_g" integer NOT NULL,
	"max_height_mm" integer NOT NULL,
	"max_load_g" integer NOT NULL
);
--> statement-breakpoint
CREATE TABLE "pick" (
	"id" text PRIMARY KEY NOT NULL,
	"run_id" text NOT NULL,
	"sequence" integer NOT NULL,
	"order_id" text NOT NULL,
	"line_id" text NOT NULL,
	"item_id" text NOT NULL,
	"lot" text NOT NULL,
	"bin_id" text NOT NULL,
	"position" integer NOT NULL,
	"units" integer NOT NULL,
	"picked" integer DEFAULT 0 NOT NULL,
	"state" text DEFAULT 'open' NOT NULL,
	"progress" jsonb NOT NULL,
	"confirmed_at" timestamp with time zone,
	"confirmed_by" text,
	CONSTRAINT "pick_within" CHECK ("pick"."picked" between 0 and "pick"."units")
);
--> statement-breakpoint
CREATE TABLE "reservation" (
	"wave_id" text NOT NULL,
	"line_id" text NOT NULL,
	"site_id" text NOT NULL,
	"item_id" text NOT NULL,
	"lot" text NOT NULL,
	"units" integer NOT NULL,
	CONSTRAINT "reservation_line_id_wave_id_lot_pk" PRIMARY KEY("line_id","wave_id","lot"),
	CONSTRAINT "reservation_units" CHECK ("reservation"."units" >= 0)
);
--> statement-breakpoint
CREATE TABLE "run" (
	"id" text PRIMARY KEY NOT NULL,
	"site_id" text NOT NULL,
	"wave_id" text NOT NULL,
	"number" text NOT NULL,
	"call_sign" text NOT NULL,
	"state" text NOT NULL,
	"positions" integer NOT NULL,
	"cart_code" text,
	"picker_id" text,
	"metres" double precision NOT NULL,
	"path" jsonb NOT NULL,
	"stops" integer NOT NULL,
	"started_at" timestamp with time zone,
	"left_at" timestamp with time zone,
	"lane_id" text
);
--> statement-breakpoint
CREATE TABLE "run_position" (
	"run_id" text NOT NULL,
	"number" integer NOT NULL,
	"order_id" text NOT NULL,
	"place_id" text NOT NULL,
	CONSTRAINT "run_position_run_id_number_pk" PRIMARY KEY("run_id","number")
);
--> statement-breakpoint
CREATE TABLE "shipment" (
	"id" text PRIMARY KEY NOT NULL,
	"site_id" text NOT NULL,
	"number" text NOT NULL,
	"order_id" text NOT NULL,
	"service_id" text,
	"tracking" text,
	"tracking_from" text,
	"state" text NOT NULL,
	"confirmed_at" timestamp with time zone,
	"confirmed_by" text
);
--> statement-breakpoint
CREATE TABLE "shipment_line" (
	"shipment_id" text NOT NULL,
	"line_id" text NOT NULL,
	"units" integer NOT NULL,
	CONSTRAINT "shipment_line_shipment_id_line_id_pk" PRIMARY KEY("shipment_id","line_id")
);
--> statement-breakpoint
CREATE TABLE "wave" (
	"id" text PRIMARY KEY NOT NULL,
	"site_id" text NOT NULL,
	"number" integer NOT NULL,
	"state" text NOT NULL,
	"created_at" timestamp with time zone NOT NULL,
	"created_by" text NOT NULL,
	"version" integer DEFAULT 1 NOT NULL
);
--> statement-breakpoint
ALTER TABLE "item_pack" ADD CONSTRAINT "item_pack_item_id_item_id_fk" FOREIGN KEY ("item_id") REFERENCES "public"."item"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "lot" ADD CONSTRAINT "lot_item_id_item_id_fk" FOREIGN KEY ("item_id") REFERENCES "public"."item"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "departure" ADD CONSTRAINT "departure_site_id_site_id_fk" FOREIGN KEY ("site_id") REFERENCES "public"."site"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "departure" ADD CONSTRAINT "departure_service_id_service_id_fk" FOREIGN KEY ("service_id") REFERENCES "public"."service"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "departure" ADD CONSTRAINT "departure_lane_id_place_id_fk" FOREIGN KEY ("lane_id") REFERENCES "public"."place"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "departure" ADD CONSTRAINT "departure_door_id_place_id_fk" FOREIGN KEY ("door_id") REFERENCES "public"."place"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "customer_order" ADD CONSTRAINT "customer_order_site_id_site_id_fk" FOREIGN KEY ("site_id") REFERENCES "public"."site"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "customer_order" ADD CONSTRAINT "customer_order_customer_id_customer_id_fk" FOREIGN KEY ("customer_id") REFERENCES "public"."customer"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "customer_order" ADD CONSTRAINT "customer_order_departure_id_departure_id_fk" FOREIGN KEY ("departure_id") REFERENCES "public"."departure"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "order_line" ADD CONSTRAINT "order_line_order_id_customer_order_id_fk" FOREIGN KEY ("order_id") REFERENCES "public"."customer_order"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "order_line" ADD CONSTRAINT "order_line_item_id_item_id_fk" FOREIGN KEY ("item_id") REFERENCES "public"."item"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "service" ADD CONSTRAINT "service_carrier_id_carrier_id_fk" FOREIGN KEY ("carrier_id") REFERENCES "public"."carrier"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "wave_line" ADD CONSTRAINT "wave_line_line_id_order_line_id_fk" FOREIGN KEY ("line_id") REFERENCES "public"."order_line"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "person" ADD CONSTRAINT "person_site_id_site_id_fk" FOREIGN KEY ("site_id") REFERENCES "public"."site"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "session" ADD CONSTRAINT "session_person_id_person_id_fk" FOREIGN KEY ("person_id") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "counter" ADD CONSTRAINT "counter_site_id_site_id_fk" FOREIGN KEY ("site_id") REFERENCES "public"."site"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "place" ADD CONSTRAINT "place_site_id_site_id_fk" FOREIGN KEY ("site_id") REFERENCES "public"."site"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "place" ADD CONSTRAINT "place_zone_id_zone_id_fk" FOREIGN KEY ("zone_id") REFERENCES "public"."zone"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "zone" ADD CONSTRAINT "zone_site_id_site_id_fk" FOREIGN KEY ("site_id") REFERENCES "public"."site"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "balance" ADD CONSTRAINT "balance_place_id_place_id_fk" FOREIGN KEY ("place_id") REFERENCES "public"."place"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "balance" ADD CONSTRAINT "balance_item_id_item_id_fk" FOREIGN KEY ("item_id") REFERENCES "public"."item"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "movement" ADD CONSTRAINT "movement_site_id_site_id_fk" FOREIGN KEY ("site_id") REFERENCES "public"."site"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "movement" ADD CONSTRAINT "movement_from_place_place_id_fk" FOREIGN KEY ("from_place") REFERENCES "public"."place"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "movement" ADD CONSTRAINT "movement_to_place_place_id_fk" FOREIGN KEY ("to_place") REFERENCES "public"."place"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "movement" ADD CONSTRAINT "movement_item_id_item_id_fk" FOREIGN KEY ("item_id") REFERENCES "public"."item"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "movement" ADD CONSTRAINT "movement_person_id_person_id_fk" FOREIGN KEY ("person_id") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "stock_total" ADD CONSTRAINT "stock_total_site_id_site_id_fk" FOREIGN KEY ("site_id") REFERENCES "public"."site"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "stock_total" ADD CONSTRAINT "stock_total_item_id_item_id_fk" FOREIGN KEY ("item_id") REFERENCES "public"."item"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "cart" ADD CONSTRAINT "cart_site_id_site_id_fk" FOREIGN KEY ("site_id") REFERENCES "public"."site"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "cart" ADD CONSTRAINT "cart_type_id_cart_type_id_fk" FOREIGN KEY ("type_id") REFERENCES "public"."cart_type"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "carton" ADD CONSTRAINT "carton_site_id_site_id_fk" FOREIGN KEY ("site_id") REFERENCES "public"."site"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "carton" ADD CONSTRAINT "carton_order_id_customer_order_id_fk" FOREIGN KEY ("order_id") REFERENCES "public"."customer_order"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "carton" ADD CONSTRAINT "carton_shipment_id_shipment_id_fk" FOREIGN KEY ("shipment_id") REFERENCES "public"."shipment"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "carton" ADD CONSTRAINT "carton_type_id_carton_type_id_fk" FOREIGN KEY ("type_id") REFERENCES "public"."carton_type"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "carton" ADD CONSTRAINT "carton_place_id_place_id_fk" FOREIGN KEY ("place_id") REFERENCES "public"."place"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "carton" ADD CONSTRAINT "carton_closed_by_person_id_fk" FOREIGN KEY ("closed_by") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "carton_line" ADD CONSTRAINT "carton_line_carton_id_carton_id_fk" FOREIGN KEY ("carton_id") REFERENCES "public"."carton"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "carton_line" ADD CONSTRAINT "carton_line_line_id_order_line_id_fk" FOREIGN KEY ("line_id") REFERENCES "public"."order_line"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "pick" ADD CONSTRAINT "pick_run_id_run_id_fk" FOREIGN KEY ("run_id") REFERENCES "public"."run"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "pick" ADD CONSTRAINT "pick_order_id_customer_order_id_fk" FOREIGN KEY ("order_id") REFERENCES "public"."customer_order"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "pick" ADD CONSTRAINT "pick_line_id_order_line_id_fk" FOREIGN KEY ("line_id") REFERENCES "public"."order_line"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "pick" ADD CONSTRAINT "pick_item_id_item_id_fk" FOREIGN KEY ("item_id") REFERENCES "public"."item"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "pick" ADD CONSTRAINT "pick_bin_id_place_id_fk" FOREIGN KEY ("bin_id") REFERENCES "public"."place"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "pick" ADD CONSTRAINT "pick_confirmed_by_person_id_fk" FOREIGN KEY ("confirmed_by") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "reservation" ADD CONSTRAINT "reservation_wave_id_wave_id_fk" FOREIGN KEY ("wave_id") REFERENCES "public"."wave"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "reservation" ADD CONSTRAINT "reservation_line_id_order_line_id_fk" FOREIGN KEY ("line_id") REFERENCES "public"."order_line"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "reservation" ADD CONSTRAINT "reservation_site_id_site_id_fk" FOREIGN KEY ("site_id") REFERENCES "public"."site"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "reservation" ADD CONSTRAINT "reservation_item_id_item_id_fk" FOREIGN KEY ("item_id") REFERENCES "public"."item"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "run" ADD CONSTRAINT "run_site_id_site_id_fk" FOREIGN KEY ("site_id") REFERENCES "public"."site"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "run" ADD CONSTRAINT "run_wave_id_wave_id_fk" FOREIGN KEY ("wave_id") REFERENCES "public"."wave"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "run" ADD CONSTRAINT "run_picker_id_person_id_fk" FOREIGN KEY ("picker_id") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "run" ADD CONSTRAINT "run_lane_id_place_id_fk" FOREIGN KEY ("lane_id") REFERENCES "public"."place"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "run_position" ADD CONSTRAINT "run_position_run_id_run_id_fk" FOREIGN KEY ("run_id") REFERENCES "public"."run"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "run_position" ADD CONSTRAINT "run_position_order_id_customer_order_id_fk" FOREIGN KEY ("order_id") REFERENCES "public"."customer_order"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "run_position" ADD CONSTRAINT "run_position_place_id_place_id_fk" FOREIGN KEY ("place_id") REFERENCES "public"."place"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "shipment" ADD CONSTRAINT "shipment_site_id_site_id_fk" FOREIGN KEY ("site_id") REFERENCES "public"."site"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "shipment" ADD CONSTRAINT "shipment_order_id_customer_order_id_fk" FOREIGN KEY ("order_id") REFERENCES "public"."customer_order"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "shipment" ADD CONSTRAINT "shipment_service_id_service_id_fk" FOREIGN KEY ("service_id") REFERENCES "public"."service"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "shipment" ADD CONSTRAINT "shipment_confirmed_by_person_id_fk" FOREIGN KEY ("confirmed_by") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "shipment_line" ADD CONSTRAINT "shipment_line_shipment_id_shipment_id_fk" FOREIGN KEY ("shipment_id") REFERENCES "public"."shipment"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "shipment_line" ADD CONSTRAINT "shipment_line_line_id_order_line_id_fk" FOREIGN KEY ("line_id") REFERENCES "public"."order_line"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "wave" ADD CONSTRAINT "wave_site_id_site_id_fk" FOREIGN KEY ("site_id") REFERENCES "public"."site"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "wave" ADD CONSTRAINT "wave_created_by_person_id_fk" FOREIGN KEY ("created_by") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE UNIQUE INDEX "item_sku" ON "item" USING btree ("sku");--> statement-breakpoint
CREATE INDEX "item_pack_item" ON "item_pack" USING btree ("item_id");--> statement-breakpoint
CREATE INDEX "idempotency_at" ON "idempotency" USING btree ("at");--> statement-breakpoint
CREATE INDEX "journal_order" ON "journal" USING btree ("order_id","id");--> statement-breakpoint
CREATE INDEX "journal_wave" ON "journal" USING btree ("wave_id","id");--> statement-breakpoint
CREATE INDEX "journal_run" ON "journal" USING btree ("run_id","id");--> statement-breakpoint
CREATE UNIQUE INDEX "customer_number" ON "customer" USING btree ("number");--> statement-breakpoint
CREATE UNIQUE INDEX "order_number" ON "customer_order" USING btree ("site_id","number");--> statement-breakpoint
CREATE INDEX "order_list" ON "customer_order" USING btree ("site_id","status","due","id");--> statement-breakpoint
CREATE INDEX "order_customer" ON "customer_order" USING btree ("customer_id");--> statement-breakpoint
CREATE UNIQUE INDEX "order_line_number" ON "order_line" USING btree ("order_id","line");--> statement-breakpoint
CREATE INDEX "order_line_item" ON "order_line" USING btree ("item_id");--> statement-breakpoint
CREATE INDEX "wave_line_line" ON "wave_line" USING btree ("line_id");--> statement-breakpoint
CREATE UNIQUE INDEX "person_login" ON "person" USING btree ("login");--> statement-breakpoint
CREATE UNIQUE INDEX "person_badge" ON "person" USING btree ("badge");--> statement-breakpoint
CREATE INDEX "session_person" ON "session" USING btree ("person_id");--> statement-breakpoint
CREATE UNIQUE INDEX "place_code" ON "place" USING btree ("site_id","kind","code");--> statement-breakpoint
CREATE INDEX "place_kind" ON "place" USING btree ("site_id","kind");--> statement-breakpoint
CREATE UNIQUE INDEX "zone_code" ON "zone" USING btree ("site_id","code");--> statement-breakpoint
CREATE INDEX "balance_item" ON "balance" USING btree ("item_id","lot");--> statement-breakpoint
CREATE UNIQUE INDEX "balance_serial_once" ON "balance" USING btree ("item_id","serial") WHERE "balance"."serial" <> '' and "balance"."units" > 0;--> statement-breakpoint
CREATE INDEX "movement_document" ON "movement" USING btree ("document");--> statement-breakpoint
CREATE INDEX "movement_item" ON "movement" USING btree ("item_id","at");--> statement-breakpoint
CREATE UNIQUE INDEX "carton_sscc" ON "carton" USING btree ("sscc");--> statement-breakpoint
CREATE INDEX "carton_order" ON "carton" USING btree ("order_id");--> statement-breakpoint
CREATE INDEX "carton_shipment" ON "carton" USING btree ("shipment_id");--> statement-breakpoint
CREATE UNIQUE INDEX "carton_open_once" ON "carton" USING btree ("order_id") WHERE "carton"."state" = 'open';--> statement-breakpoint
CREATE INDEX "carton_line_line" ON "carton_line" USING btree ("line_id");--> statement-breakpoint
CREATE INDEX "pick_run" ON "pick" USING btree ("run_id","sequence");--> statement-breakpoint
CREATE INDEX "pick_line" ON "pick" USING btree ("line_id");--> statement-breakpoint
CREATE INDEX "pick_open_bin" ON "pick" USING btree ("bin_id","item_id","lot") WHERE "pick"."state" = 'open';--> statement-breakpoint
CREATE INDEX "reservation_wave" ON "reservation" USING btree ("wave_id");--> statement-breakpoint
CREATE UNIQUE INDEX "run_number" ON "run" USING btree ("site_id","number");--> statement-breakpoint
CREATE INDEX "run_wave" ON "run" USING btree ("wave_id");--> statement-breakpoint
CREATE INDEX "run_state" ON "run" USING btree ("site_id","state");--> statement-breakpoint
CREATE UNIQUE INDEX "run_cart_once" ON "run" USING btree ("site_id","cart_code") WHERE "run"."state" in ('picking', 'left');--> statement-breakpoint
CREATE INDEX "run_position_order" ON "run_position" USING btree ("order_id");--> statement-breakpoint
CREATE UNIQUE INDEX "run_position_place" ON "run_position" USING btree ("place_id");--> statement-breakpoint
CREATE UNIQUE INDEX "shipment_number" ON "shipment" USING btree ("site_id","number");--> statement-breakpoint
CREATE UNIQUE INDEX "shipment_open_once" ON "shipment" USING btree ("order_id") WHERE "shipment"."state" = 'open';--> statement-breakpoint
CREATE INDEX "shipment_state" ON "shipment" USING btree ("site_id","state","confirmed_at");--> statement-breakpoint
CREATE UNIQUE INDEX "wave_number" ON "wave" USING btree ("site_id","number");