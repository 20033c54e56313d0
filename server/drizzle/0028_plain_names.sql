ALTER TABLE "shelf_wish" RENAME TO "minimum_shelf_life";--> statement-breakpoint
ALTER TABLE "minimum_shelf_life" RENAME CONSTRAINT "shelf_wish_customer_id_item_id_pk" TO "minimum_shelf_life_customer_id_item_id_pk";--> statement-breakpoint
ALTER TABLE "minimum_shelf_life" RENAME CONSTRAINT "shelf_wish_customer_id_customer_id_fk" TO "minimum_shelf_life_customer_id_customer_id_fk";--> statement-breakpoint
ALTER TABLE "minimum_shelf_life" RENAME CONSTRAINT "shelf_wish_item_id_item_id_fk" TO "minimum_shelf_life_item_id_item_id_fk";--> statement-breakpoint
ALTER TABLE "kept_view" RENAME TO "saved_view";--> statement-breakpoint
ALTER TABLE "saved_view" RENAME CONSTRAINT "kept_view_person_id_person_id_fk" TO "saved_view_person_id_person_id_fk";--> statement-breakpoint
ALTER TABLE "saved_view" RENAME CONSTRAINT "kept_view_site_id_site_id_fk" TO "saved_view_site_id_site_id_fk";--> statement-breakpoint
ALTER INDEX "kept_view_name" RENAME TO "saved_view_name";
