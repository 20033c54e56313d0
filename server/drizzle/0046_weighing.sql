CREATE TABLE "item_weight" (
	"item_id" text PRIMARY KEY NOT NULL,
	"entered_g" integer NOT NULL,
	"mean_g" double precision NOT NULL,
	"variance" double precision NOT NULL,
	"spread" double precision NOT NULL,
	"cartons" integer NOT NULL
);
--> statement-breakpoint
CREATE TABLE "void_label" (
	"sscc" text PRIMARY KEY NOT NULL,
	"site_id" text NOT NULL,
	"order_id" text NOT NULL,
	"carton" integer NOT NULL,
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
ALTER TABLE "carton" ADD COLUMN "measured_g" bigint;--> statement-breakpoint
ALTER TABLE "item_weight" ADD CONSTRAINT "item_weight_item_id_item_id_fk" FOREIGN KEY ("item_id") REFERENCES "public"."item"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "void_label" ADD CONSTRAINT "void_label_site_id_site_id_fk" FOREIGN KEY ("site_id") REFERENCES "public"."site"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "void_label" ADD CONSTRAINT "void_label_order_id_customer_order_id_fk" FOREIGN KEY ("order_id") REFERENCES "public"."customer_order"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "scale_standin" ADD CONSTRAINT "scale_standin_site_id_site_id_fk" FOREIGN KEY ("site_id") REFERENCES "public"."site"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE UNIQUE INDEX "carton_open_once" ON "carton" USING btree ("order_id","run_id") WHERE "carton"."state" = 'open';