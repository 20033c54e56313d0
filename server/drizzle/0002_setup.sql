ALTER TABLE "item" ADD COLUMN "retired" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "customer" ADD COLUMN "retired" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "departure" ADD COLUMN "retired" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "service" ADD COLUMN "retired" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "place" ADD COLUMN "retired" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "site" ADD COLUMN "settings" jsonb DEFAULT '{}'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "zone" ADD COLUMN "retired" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "cart" ADD COLUMN "retired" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "carton_type" ADD COLUMN "retired" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "pallet_type" ADD COLUMN "retired" boolean DEFAULT false NOT NULL;--> statement-breakpoint
CREATE INDEX "journal_kind" ON "journal" USING btree ("site_id","kind","id");--> statement-breakpoint
CREATE UNIQUE INDEX "carrier_name" ON "carrier" USING btree ("name");--> statement-breakpoint
CREATE UNIQUE INDEX "departure_name" ON "departure" USING btree ("site_id","name");--> statement-breakpoint
CREATE UNIQUE INDEX "service_name" ON "service" USING btree ("carrier_id","name");--> statement-breakpoint
CREATE UNIQUE INDEX "cart_type_name" ON "cart_type" USING btree ("name");--> statement-breakpoint
CREATE UNIQUE INDEX "carton_type_code" ON "carton_type" USING btree ("code");--> statement-breakpoint
CREATE UNIQUE INDEX "pallet_type_name" ON "pallet_type" USING btree ("name");