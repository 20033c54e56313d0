CREATE TABLE "hold_rule" (
	"id" text PRIMARY KEY NOT NULL,
	"site_id" text NOT NULL,
	"name" text NOT NULL,
	"text" text NOT NULL,
	"conditions" jsonb NOT NULL,
	"stops" text[] NOT NULL,
	"lifters" text[] NOT NULL,
	"retired" boolean DEFAULT false NOT NULL
);
--> statement-breakpoint
CREATE TABLE "order_hold" (
	"id" text PRIMARY KEY NOT NULL,
	"site_id" text NOT NULL,
	"order_id" text NOT NULL,
	"rule_id" text,
	"text" text NOT NULL,
	"stops" text[] NOT NULL,
	"lifters" text[] NOT NULL,
	"held_at" timestamp with time zone NOT NULL,
	"held_by" text,
	"lifted_at" timestamp with time zone,
	"lifted_by" text
);
--> statement-breakpoint
ALTER TABLE "customer" ADD COLUMN "credit_stop" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "hold_rule" ADD CONSTRAINT "hold_rule_site_id_site_id_fk" FOREIGN KEY ("site_id") REFERENCES "public"."site"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "order_hold" ADD CONSTRAINT "order_hold_order_id_customer_order_id_fk" FOREIGN KEY ("order_id") REFERENCES "public"."customer_order"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "order_hold" ADD CONSTRAINT "order_hold_rule_id_hold_rule_id_fk" FOREIGN KEY ("rule_id") REFERENCES "public"."hold_rule"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE UNIQUE INDEX "hold_rule_name" ON "hold_rule" USING btree ("site_id","name");--> statement-breakpoint
CREATE INDEX "order_hold_order" ON "order_hold" USING btree ("order_id");--> statement-breakpoint
CREATE INDEX "order_hold_now" ON "order_hold" USING btree ("order_id") WHERE "order_hold"."lifted_at" is null;--> statement-breakpoint
CREATE UNIQUE INDEX "order_hold_rule_once" ON "order_hold" USING btree ("order_id","rule_id") WHERE "order_hold"."rule_id" is not null;