CREATE TABLE "channel" (
	"code" text PRIMARY KEY NOT NULL,
	"name" text NOT NULL,
	"rank" smallint NOT NULL,
	"retired" boolean DEFAULT false NOT NULL
);
--> statement-breakpoint
CREATE TABLE "customer_class" (
	"code" text PRIMARY KEY NOT NULL,
	"name" text NOT NULL,
	"rank" smallint NOT NULL,
	"retired" boolean DEFAULT false NOT NULL
);
--> statement-breakpoint
INSERT INTO "channel" ("code", "name", "rank") VALUES ('account', 'Key accounts', 1), ('field', 'Field sales', 2), ('web', 'Web shop', 3);--> statement-breakpoint
INSERT INTO "customer_class" ("code", "name", "rank") VALUES ('A', 'Class A', 1), ('B', 'Class B', 2), ('C', 'Class C', 3);
