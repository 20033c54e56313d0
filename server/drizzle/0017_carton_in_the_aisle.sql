DROP INDEX "carton_open_once";--> statement-breakpoint
ALTER TABLE "carton" ADD COLUMN "run_id" text;--> statement-breakpoint
ALTER TABLE "run_position" ADD COLUMN "ready_at" timestamp with time zone;--> statement-breakpoint
ALTER TABLE "carton" ADD CONSTRAINT "carton_run_id_run_id_fk" FOREIGN KEY ("run_id") REFERENCES "public"."run"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "carton_run" ON "carton" USING btree ("run_id");--> statement-breakpoint
CREATE UNIQUE INDEX "carton_open_once" ON "carton" USING btree ("order_id",coalesce("run_id", '')) WHERE "carton"."state" = 'open';