CREATE TABLE "shop_entries" (
	"shelf" text NOT NULL,
	"id" text NOT NULL,
	"version" integer DEFAULT 1 NOT NULL,
	"entry" jsonb NOT NULL,
	"changed_at" timestamp with time zone DEFAULT now() NOT NULL,
	"deleted_at" timestamp with time zone,
	CONSTRAINT "shop_entries_shelf_id_pk" PRIMARY KEY("shelf","id")
);
