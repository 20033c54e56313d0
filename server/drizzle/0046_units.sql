CREATE TABLE "item_weight" (
	"item_id" text PRIMARY KEY NOT NULL,
	"entered_g" integer NOT NULL,
	"mean_g" double precision NOT NULL,
	"variance" double precision NOT NULL,
	"spread" double precision NOT NULL,
	"cartons" integer NOT NULL
);
--> statement-breakpoint
CREATE TABLE "pallet" (
	"id" text PRIMARY KEY NOT NULL,
	"site_id" text NOT NULL,
	"number" text NOT NULL,
	"type_id" text NOT NULL,
	"sscc" text,
	"state" text NOT NULL,
	"outer_id" text,
	"weight_g" bigint,
	"plan" jsonb NOT NULL,
	"station" text NOT NULL,
	"opened_at" timestamp with time zone NOT NULL,
	"closed_at" timestamp with time zone,
	"closed_by" text
);
--> statement-breakpoint
CREATE TABLE "void_label" (
	"sscc" text PRIMARY KEY NOT NULL,
	"site_id" text NOT NULL,
	"order_id" text,
	"name" text NOT NULL,
	"at" timestamp with time zone NOT NULL
);
--> statement-breakpoint
CREATE TABLE "scale_standin" (
	"site_id" text NOT NULL,
	"bench" text NOT NULL,
	"grams" integer NOT NULL,
	"mode" text NOT NULL,
	CONSTRAINT "scale_standin_site_id_bench_pk" PRIMARY KEY("site_id","bench")
);
--> statement-breakpoint
DROP INDEX "carton_open_once";--> statement-breakpoint
ALTER TABLE "place" ADD COLUMN "scale" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "site" ADD COLUMN "country" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "carton" ADD COLUMN "pallet_id" text;--> statement-breakpoint
ALTER TABLE "carton" ADD COLUMN "measured_g" bigint;--> statement-breakpoint
ALTER TABLE "print_job" ADD COLUMN "zpl" text;--> statement-breakpoint
ALTER TABLE "item_weight" ADD CONSTRAINT "item_weight_item_id_item_id_fk" FOREIGN KEY ("item_id") REFERENCES "public"."item"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "pallet" ADD CONSTRAINT "pallet_site_id_site_id_fk" FOREIGN KEY ("site_id") REFERENCES "public"."site"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "pallet" ADD CONSTRAINT "pallet_type_id_pallet_type_id_fk" FOREIGN KEY ("type_id") REFERENCES "public"."pallet_type"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "pallet" ADD CONSTRAINT "pallet_outer_id_pallet_id_fk" FOREIGN KEY ("outer_id") REFERENCES "public"."pallet"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "pallet" ADD CONSTRAINT "pallet_closed_by_person_id_fk" FOREIGN KEY ("closed_by") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "void_label" ADD CONSTRAINT "void_label_site_id_site_id_fk" FOREIGN KEY ("site_id") REFERENCES "public"."site"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "void_label" ADD CONSTRAINT "void_label_order_id_customer_order_id_fk" FOREIGN KEY ("order_id") REFERENCES "public"."customer_order"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "scale_standin" ADD CONSTRAINT "scale_standin_site_id_site_id_fk" FOREIGN KEY ("site_id") REFERENCES "public"."site"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE UNIQUE INDEX "pallet_number" ON "pallet" USING btree ("site_id","number");--> statement-breakpoint
CREATE UNIQUE INDEX "pallet_sscc" ON "pallet" USING btree ("sscc");--> statement-breakpoint
CREATE INDEX "pallet_state" ON "pallet" USING btree ("site_id","state");--> statement-breakpoint
CREATE INDEX "pallet_outer" ON "pallet" USING btree ("outer_id") WHERE "pallet"."outer_id" is not null;--> statement-breakpoint
ALTER TABLE "carton" ADD CONSTRAINT "carton_pallet_id_pallet_id_fk" FOREIGN KEY ("pallet_id") REFERENCES "public"."pallet"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "carton_pallet" ON "carton" USING btree ("pallet_id") WHERE "carton"."pallet_id" is not null;--> statement-breakpoint
CREATE UNIQUE INDEX "carton_open_once" ON "carton" USING btree ("order_id","run_id") WHERE "carton"."state" = 'open';