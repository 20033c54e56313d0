ALTER TABLE "place" ADD COLUMN "for_carrier" text;--> statement-breakpoint
ALTER TABLE "place" ADD COLUMN "for_zone" text;--> statement-breakpoint
ALTER TABLE "place" ADD COLUMN "from_litres" integer;