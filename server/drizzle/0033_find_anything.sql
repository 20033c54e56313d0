CREATE EXTENSION IF NOT EXISTS pg_trgm;--> statement-breakpoint
-- A text as a search compares it. Core has the same two texts (`searchKey`), and a test holds one against the other.
CREATE FUNCTION search_key(text) RETURNS text LANGUAGE sql IMMUTABLE STRICT PARALLEL SAFE AS $$
  SELECT translate(replace($1, 'ß', 'ss'), E'abcdefghijklmnopqrstuvwxyzÀÁÂÃÄÅàáâãäåÇçÈÉÊËèéêëÌÍÎÏìíîïÑñÒÓÔÕÖØòóôõöøÙÚÛÜùúûüÝýÿ \t\u00a0!"#$%&''()*+,-./:;<=>?@[\\]^_`{|}~', 'ABCDEFGHIJKLMNOPQRSTUVWXYZAAAAAAAAAAAACCEEEEEEEEIIIIIIIINNOOOOOOOOOOOOUUUUUUUUYYY')
$$;--> statement-breakpoint
CREATE INDEX "item_found" ON "item" USING gin (search_key("sku") gin_trgm_ops,search_key("name") gin_trgm_ops);--> statement-breakpoint
CREATE INDEX "item_pack_found" ON "item_pack" USING gin (search_key("gtin") gin_trgm_ops);--> statement-breakpoint
CREATE INDEX "lot_found" ON "lot" USING gin (search_key("lot") gin_trgm_ops);--> statement-breakpoint
CREATE INDEX "customer_found" ON "customer" USING gin (search_key("number") gin_trgm_ops,search_key("name") gin_trgm_ops,search_key("city") gin_trgm_ops);--> statement-breakpoint
CREATE INDEX "order_found" ON "customer_order" USING gin (search_key("number") gin_trgm_ops,search_key("reference") gin_trgm_ops);--> statement-breakpoint
CREATE INDEX "place_found" ON "place" USING gin (search_key("code") gin_trgm_ops) WHERE "place"."kind" in ('bin', 'lane', 'bench', 'door');--> statement-breakpoint
CREATE INDEX "movement_from" ON "movement" USING btree ("from_place");--> statement-breakpoint
CREATE INDEX "movement_to" ON "movement" USING btree ("to_place");--> statement-breakpoint
CREATE INDEX "movement_serial" ON "movement" USING gin (search_key("serial") gin_trgm_ops) WHERE "movement"."serial" <> '';--> statement-breakpoint
CREATE INDEX "carton_found" ON "carton" USING gin (search_key("sscc") gin_trgm_ops);--> statement-breakpoint
CREATE INDEX "shipment_found" ON "shipment" USING gin (search_key("number") gin_trgm_ops,search_key("tracking") gin_trgm_ops);