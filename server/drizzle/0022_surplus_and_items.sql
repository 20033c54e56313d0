ALTER TABLE "pick" DROP CONSTRAINT "pick_line_id_order_line_id_fk";
--> statement-breakpoint
ALTER TABLE "reservation" DROP CONSTRAINT "reservation_line_id_order_line_id_fk";
--> statement-breakpoint
ALTER TABLE "put_back" ADD COLUMN "carton" integer;--> statement-breakpoint
ALTER TABLE "order_line" ADD CONSTRAINT "order_line_of_item" UNIQUE("id","item_id");--> statement-breakpoint
-- Not held against what is there: an earlier version let a line's item change under its picks, and the house must start all the same.
ALTER TABLE "pick" ADD CONSTRAINT "pick_of_line" FOREIGN KEY ("line_id","item_id") REFERENCES "public"."order_line"("id","item_id") ON DELETE no action ON UPDATE no action NOT VALID;--> statement-breakpoint
ALTER TABLE "reservation" ADD CONSTRAINT "reservation_line" FOREIGN KEY ("line_id","item_id") REFERENCES "public"."order_line"("id","item_id") ON DELETE no action ON UPDATE no action NOT VALID;
