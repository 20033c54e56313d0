ALTER TABLE "item" ADD COLUMN "own_box" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "channel" ADD COLUMN "packing" text DEFAULT 'usual' NOT NULL;--> statement-breakpoint
ALTER TABLE "customer" ADD COLUMN "packing" text DEFAULT 'usual' NOT NULL;--> statement-breakpoint
ALTER TABLE "customer_order" ADD COLUMN "packing" text DEFAULT 'usual' NOT NULL;