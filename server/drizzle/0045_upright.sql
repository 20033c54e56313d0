ALTER TABLE "item" ADD COLUMN "keep_upright" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "item" ADD COLUMN "max_load_g" integer;