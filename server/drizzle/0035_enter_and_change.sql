-- Who could change orders by a file, or their lanes, may enter and change them on screen.
UPDATE "role" SET "rights" = array_append("rights", 'orders.change')
WHERE "rights" && array['orders.import', 'orders.release'] AND NOT 'orders.change' = ANY("rights");
