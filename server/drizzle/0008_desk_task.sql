CREATE TABLE "desk_task" (
	"id" text PRIMARY KEY NOT NULL,
	"site_id" text NOT NULL,
	"line_id" text NOT NULL,
	"units" integer NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"decision" text,
	"decided_at" timestamp with time zone,
	"decided_by" text,
	CONSTRAINT "desk_task_units" CHECK ("desk_task"."units" > 0)
);
--> statement-breakpoint
ALTER TABLE "desk_task" ADD CONSTRAINT "desk_task_line_id_order_line_id_fk" FOREIGN KEY ("line_id") REFERENCES "public"."order_line"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "desk_task" ADD CONSTRAINT "desk_task_decided_by_person_id_fk" FOREIGN KEY ("decided_by") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "desk_task_open" ON "desk_task" USING btree ("site_id") WHERE "desk_task"."decision" is null;--> statement-breakpoint
CREATE UNIQUE INDEX "desk_task_once" ON "desk_task" USING btree ("line_id") WHERE "desk_task"."decision" is null;