ALTER TABLE "place" ADD COLUMN "fits" integer;--> statement-breakpoint
ALTER TABLE "cart_type" ADD COLUMN "across" integer;--> statement-breakpoint
ALTER TABLE "shipment" ADD COLUMN "without_carrier" boolean DEFAULT false NOT NULL;--> statement-breakpoint
CREATE INDEX "shipment_tracking" ON "shipment" USING btree ("site_id","tracking");