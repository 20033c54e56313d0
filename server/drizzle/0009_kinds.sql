CREATE TABLE "order_charge" (
	"order_id" text NOT NULL,
	"line" integer NOT NULL,
	"item_id" text NOT NULL,
	"quantity" integer NOT NULL,
	"note" text NOT NULL,
	CONSTRAINT "order_charge_order_id_line_pk" PRIMARY KEY("order_id","line")
);
--> statement-breakpoint
ALTER TABLE "item" ADD COLUMN "service" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "customer_order" ADD COLUMN "kind" text DEFAULT 'order' NOT NULL;--> statement-breakpoint
ALTER TABLE "customer_order" ADD COLUMN "to_site" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "order_charge" ADD CONSTRAINT "order_charge_order_id_customer_order_id_fk" FOREIGN KEY ("order_id") REFERENCES "public"."customer_order"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "order_charge" ADD CONSTRAINT "order_charge_item_id_item_id_fk" FOREIGN KEY ("item_id") REFERENCES "public"."item"("id") ON DELETE no action ON UPDATE no action;