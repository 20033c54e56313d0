CREATE INDEX "order_number_typed" ON "customer_order" USING btree ("site_id",upper("number"));--> statement-breakpoint
CREATE INDEX "order_hold_of_rule" ON "order_hold" USING btree ("rule_id") WHERE "order_hold"."lifted_at" is null;--> statement-breakpoint
CREATE INDEX "order_line_packed" ON "order_line" USING btree ("order_id") WHERE "order_line"."packed" > "order_line"."shipped";--> statement-breakpoint
CREATE INDEX "place_typed" ON "place" USING btree ("site_id","kind",upper("code"));--> statement-breakpoint
CREATE INDEX "place_blocked" ON "place" USING btree ("site_id") WHERE "place"."blocked" is not null;