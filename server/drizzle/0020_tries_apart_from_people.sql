ALTER TABLE "person" DROP COLUMN "failures";--> statement-breakpoint
ALTER TABLE "person" DROP COLUMN "locked_until";--> statement-breakpoint
-- Cartons that were opened for orders with nothing to pack, and the shipments that came with them.
DELETE FROM "carton_line" l USING "carton" c WHERE c."id" = l."carton_id" AND c."state" = 'open' AND c."run_id" IS NULL AND l."units" = 0
  AND NOT EXISTS (SELECT 1 FROM "carton_line" o WHERE o."carton_id" = c."id" AND o."units" > 0);--> statement-breakpoint
DELETE FROM "carton" c WHERE c."state" = 'open' AND c."run_id" IS NULL
  AND NOT EXISTS (SELECT 1 FROM "carton_line" l WHERE l."carton_id" = c."id");--> statement-breakpoint
DELETE FROM "shipment" s WHERE s."state" = 'open' AND NOT s."loose" AND s."tracking" IS NULL
  AND NOT EXISTS (SELECT 1 FROM "carton" c WHERE c."shipment_id" = s."id")
  AND NOT EXISTS (SELECT 1 FROM "shipment_line" l WHERE l."shipment_id" = s."id");
