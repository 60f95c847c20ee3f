CREATE TABLE "prepared_rows" (
	"key" text PRIMARY KEY NOT NULL,
	"seen" jsonb,
	"fault" text,
	"serial" bigserial NOT NULL,
	"used_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "row_batches" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"document" jsonb NOT NULL,
	"today" text NOT NULL,
	"asked_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "row_workers" (
	"id" uuid PRIMARY KEY NOT NULL,
	"seen_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "rows_of_batch" (
	"batch" uuid NOT NULL,
	"nth" integer NOT NULL,
	"row_id" text NOT NULL,
	"key" text NOT NULL,
	CONSTRAINT "rows_of_batch_batch_nth_pk" PRIMARY KEY("batch","nth")
);
--> statement-breakpoint
ALTER TABLE "rows_of_batch" ADD CONSTRAINT "rows_of_batch_batch_row_batches_id_fk" FOREIGN KEY ("batch") REFERENCES "public"."row_batches"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "rows_of_batch_by_key" ON "rows_of_batch" USING btree ("key");