DROP INDEX "load_state";--> statement-breakpoint
ALTER TABLE "load" ADD COLUMN "ended_at" timestamp with time zone;--> statement-breakpoint
ALTER TABLE "load" ADD COLUMN "ended_by" text;--> statement-breakpoint
ALTER TABLE "load_order" ADD COLUMN "stop" integer DEFAULT 1 NOT NULL;--> statement-breakpoint
ALTER TABLE "shipment" ADD COLUMN "load_id" text;--> statement-breakpoint
ALTER TABLE "load" ADD CONSTRAINT "load_ended_by_person_id_fk" FOREIGN KEY ("ended_by") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "shipment" ADD CONSTRAINT "shipment_load_id_load_id_fk" FOREIGN KEY ("load_id") REFERENCES "public"."load"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "shipment_load" ON "shipment" USING btree ("load_id") WHERE "shipment"."load_id" is not null;--> statement-breakpoint
CREATE INDEX "load_state" ON "load" USING btree ("site_id","state","ended_at");--> statement-breakpoint
-- What was confirmed while its order was in a load left on that load.
UPDATE "shipment" s SET "load_id" = lo."load_id" FROM "load_order" lo WHERE lo."order_id" = s."order_id" AND s."state" = 'confirmed' AND s."confirmed_at" >= lo."added_at";
