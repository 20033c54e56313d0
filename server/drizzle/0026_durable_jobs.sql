CREATE TABLE "replan_draft" (
	"wave_id" text PRIMARY KEY NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"draft" jsonb NOT NULL
);
--> statement-breakpoint
UPDATE "job" SET "state" = CASE "state" WHEN 'done' THEN 'done' WHEN 'stopped' THEN 'cancelled' ELSE 'failed' END;--> statement-breakpoint
ALTER TABLE "job" ALTER COLUMN "problem" SET DATA TYPE jsonb USING NULL;--> statement-breakpoint
ALTER TABLE "job" ADD COLUMN "actor" jsonb DEFAULT '{}'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "job" ADD COLUMN "input" jsonb;--> statement-breakpoint
ALTER TABLE "job" ADD COLUMN "done" double precision DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE "job" ADD COLUMN "all" integer DEFAULT 1 NOT NULL;--> statement-breakpoint
ALTER TABLE "job" ADD COLUMN "told" jsonb DEFAULT '{}'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "job" ADD COLUMN "cancel" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "job" ADD COLUMN "owner" text;--> statement-breakpoint
ALTER TABLE "job" ADD COLUMN "lease" timestamp with time zone;--> statement-breakpoint
ALTER TABLE "replan_draft" ADD CONSTRAINT "replan_draft_wave_id_wave_id_fk" FOREIGN KEY ("wave_id") REFERENCES "public"."wave"("id") ON DELETE no action ON UPDATE no action;