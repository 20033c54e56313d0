CREATE TABLE "pack_rule" (
	"id" bigint PRIMARY KEY GENERATED ALWAYS AS IDENTITY (sequence name "pack_rule_id_seq" INCREMENT BY 1 MINVALUE 1 MAXVALUE 9223372036854775807 START WITH 1 CACHE 1),
	"site_id" text NOT NULL,
	"item_id" text NOT NULL,
	"customer_id" text,
	"country" text NOT NULL,
	"type_id" text,
	"per_carton" integer NOT NULL,
	"per_pallet" integer,
	"retired" boolean DEFAULT false NOT NULL,
	CONSTRAINT "pack_rule_counts" CHECK ("pack_rule"."per_carton" > 0 and "pack_rule"."per_pallet" >= "pack_rule"."per_carton")
);
--> statement-breakpoint
ALTER TABLE "pack_rule" ADD CONSTRAINT "pack_rule_site_id_site_id_fk" FOREIGN KEY ("site_id") REFERENCES "public"."site"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "pack_rule" ADD CONSTRAINT "pack_rule_item_id_item_id_fk" FOREIGN KEY ("item_id") REFERENCES "public"."item"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "pack_rule" ADD CONSTRAINT "pack_rule_customer_id_customer_id_fk" FOREIGN KEY ("customer_id") REFERENCES "public"."customer"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "pack_rule" ADD CONSTRAINT "pack_rule_type_id_carton_type_id_fk" FOREIGN KEY ("type_id") REFERENCES "public"."carton_type"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE UNIQUE INDEX "pack_rule_once" ON "pack_rule" USING btree ("site_id","item_id",coalesce("customer_id", ''),"country");