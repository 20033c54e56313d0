CREATE TABLE "job" (
	"id" text PRIMARY KEY NOT NULL,
	"site_id" text NOT NULL,
	"kind" text NOT NULL,
	"of_id" text NOT NULL,
	"person_id" text NOT NULL,
	"state" text NOT NULL,
	"far" double precision DEFAULT 0 NOT NULL,
	"problem" text,
	"at" timestamp with time zone NOT NULL
);
--> statement-breakpoint
CREATE TABLE "timetable" (
	"id" text PRIMARY KEY NOT NULL,
	"site_id" text NOT NULL,
	"name" text NOT NULL,
	"departure_id" text,
	"channel" text,
	"customer_class" text,
	"zone" text,
	"kind" text,
	"max_lines" integer,
	"max_units" integer,
	"wave_orders" integer,
	"wave_units" integer,
	"picking" text DEFAULT 'sort' NOT NULL,
	"cart_type_id" text,
	"team" text DEFAULT '' NOT NULL,
	"people" integer,
	"gather" text DEFAULT 'hand' NOT NULL,
	"gather_at" text,
	"gather_level" integer,
	"plan" text DEFAULT 'hand' NOT NULL,
	"plan_at" text,
	"start" text DEFAULT 'hand' NOT NULL,
	"start_at" text,
	"retired" boolean DEFAULT false NOT NULL
);
--> statement-breakpoint
ALTER TABLE "membership" ADD COLUMN "team" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "place" ADD COLUMN "x" double precision;--> statement-breakpoint
ALTER TABLE "place" ADD COLUMN "bay" integer;--> statement-breakpoint
ALTER TABLE "place" ADD COLUMN "sequence" integer;--> statement-breakpoint
ALTER TABLE "place" ADD COLUMN "home_item_id" text;--> statement-breakpoint
ALTER TABLE "site" ADD COLUMN "finish" jsonb;--> statement-breakpoint
ALTER TABLE "zone" ADD COLUMN "area" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "pick" ADD COLUMN "why" text DEFAULT 'code' NOT NULL;--> statement-breakpoint
ALTER TABLE "pick" ADD COLUMN "saves" real DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE "run" ADD COLUMN "assigned_id" text;--> statement-breakpoint
ALTER TABLE "run" ADD COLUMN "team" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "run" ADD COLUMN "priority" integer DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE "run" ADD COLUMN "rank" double precision DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE "run" ADD COLUMN "picking" text DEFAULT 'sort' NOT NULL;--> statement-breakpoint
ALTER TABLE "run" ADD COLUMN "area" text;--> statement-breakpoint
ALTER TABLE "run" ADD COLUMN "lower_bound" double precision DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE "run" ADD COLUMN "proven" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "run" ADD COLUMN "seconds" double precision DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE "wave" ADD COLUMN "entry_id" text;--> statement-breakpoint
ALTER TABLE "wave" ADD COLUMN "day" date;--> statement-breakpoint
ALTER TABLE "wave" ADD COLUMN "picking" text DEFAULT 'sort' NOT NULL;--> statement-breakpoint
ALTER TABLE "wave" ADD COLUMN "cart_type_id" text;--> statement-breakpoint
ALTER TABLE "wave" ADD COLUMN "team" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "wave" ADD COLUMN "people" integer;--> statement-breakpoint
ALTER TABLE "wave" ADD COLUMN "rank" double precision DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE "wave" ADD COLUMN "foreseen" jsonb;--> statement-breakpoint
ALTER TABLE "job" ADD CONSTRAINT "job_site_id_site_id_fk" FOREIGN KEY ("site_id") REFERENCES "public"."site"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "job" ADD CONSTRAINT "job_person_id_person_id_fk" FOREIGN KEY ("person_id") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "timetable" ADD CONSTRAINT "timetable_site_id_site_id_fk" FOREIGN KEY ("site_id") REFERENCES "public"."site"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "timetable" ADD CONSTRAINT "timetable_departure_id_departure_id_fk" FOREIGN KEY ("departure_id") REFERENCES "public"."departure"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "timetable" ADD CONSTRAINT "timetable_cart_type_id_cart_type_id_fk" FOREIGN KEY ("cart_type_id") REFERENCES "public"."cart_type"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE UNIQUE INDEX "job_running_once" ON "job" USING btree ("kind","of_id") WHERE "job"."state" = 'running';--> statement-breakpoint
CREATE UNIQUE INDEX "timetable_name" ON "timetable" USING btree ("site_id","name");--> statement-breakpoint
ALTER TABLE "run" ADD CONSTRAINT "run_assigned_id_person_id_fk" FOREIGN KEY ("assigned_id") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "wave" ADD CONSTRAINT "wave_entry_id_timetable_id_fk" FOREIGN KEY ("entry_id") REFERENCES "public"."timetable"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "wave" ADD CONSTRAINT "wave_cart_type_id_cart_type_id_fk" FOREIGN KEY ("cart_type_id") REFERENCES "public"."cart_type"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "wave_entry" ON "wave" USING btree ("entry_id","day");