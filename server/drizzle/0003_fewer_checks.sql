ALTER TABLE "pick" DROP CONSTRAINT "pick_order_id_customer_order_id_fk";
--> statement-breakpoint
ALTER TABLE "pick" DROP CONSTRAINT "pick_item_id_item_id_fk";
--> statement-breakpoint
ALTER TABLE "reservation" DROP CONSTRAINT "reservation_site_id_site_id_fk";
--> statement-breakpoint
ALTER TABLE "reservation" DROP CONSTRAINT "reservation_item_id_item_id_fk";
