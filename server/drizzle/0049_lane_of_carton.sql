ALTER TABLE "carton" ADD COLUMN "lane_id" text;--> statement-breakpoint
ALTER TABLE "carton" ADD CONSTRAINT "carton_lane_id_place_id_fk" FOREIGN KEY ("lane_id") REFERENCES "public"."place"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
-- "Print at closing" was yes or no.
UPDATE "site" SET "settings" = jsonb_set("settings" #- '{work,labelAtClosing}', '{work,labels}', CASE WHEN "settings" #> '{work,labelAtClosing}' = 'false' THEN '"hand"'::jsonb ELSE '"each"'::jsonb END)
WHERE "settings" #> '{work,labelAtClosing}' IS NOT NULL;
