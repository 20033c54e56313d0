CREATE TABLE "packaging" (
	"site_id" text NOT NULL,
	"type_id" text NOT NULL,
	"accounting" text NOT NULL,
	"on_hand" integer DEFAULT 0 NOT NULL,
	"on_order" integer DEFAULT 0 NOT NULL,
	"reorder_point" integer,
	"lot" integer DEFAULT 1 NOT NULL,
	"look_after_used" integer,
	"look_after_days" integer,
	"looked_at" timestamp with time zone,
	"own_line" boolean DEFAULT false NOT NULL,
	"count_wanted" boolean DEFAULT false NOT NULL,
	CONSTRAINT "packaging_site_id_type_id_pk" PRIMARY KEY("site_id","type_id"),
	CONSTRAINT "packaging_on_hand" CHECK ("packaging"."on_hand" >= 0),
	CONSTRAINT "packaging_on_order" CHECK ("packaging"."on_order" >= 0)
);
--> statement-breakpoint
CREATE TABLE "packaging_movement" (
	"id" bigint PRIMARY KEY GENERATED ALWAYS AS IDENTITY (sequence name "packaging_movement_id_seq" INCREMENT BY 1 MINVALUE 1 MAXVALUE 9223372036854775807 START WITH 1 CACHE 1),
	"site_id" text NOT NULL,
	"type_id" text NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"person_id" text NOT NULL,
	"reason" text NOT NULL,
	"units" integer NOT NULL,
	"missing" integer DEFAULT 0 NOT NULL,
	"document" text DEFAULT '' NOT NULL
);
--> statement-breakpoint
ALTER TABLE "packaging" ADD CONSTRAINT "packaging_site_id_site_id_fk" FOREIGN KEY ("site_id") REFERENCES "public"."site"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "packaging_movement" ADD CONSTRAINT "packaging_movement_site_id_site_id_fk" FOREIGN KEY ("site_id") REFERENCES "public"."site"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "packaging_movement" ADD CONSTRAINT "packaging_movement_person_id_person_id_fk" FOREIGN KEY ("person_id") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "packaging_movement_type" ON "packaging_movement" USING btree ("site_id","type_id","at");--> statement-breakpoint
CREATE UNIQUE INDEX "packaging_movement_shipped" ON "packaging_movement" USING btree ("site_id","type_id","document") WHERE "packaging_movement"."reason" = 'shipped';