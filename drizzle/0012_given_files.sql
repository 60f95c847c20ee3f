CREATE TABLE "given_files" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"job_id" uuid NOT NULL,
	"version" integer NOT NULL,
	"name" text NOT NULL,
	"file" text NOT NULL,
	"proof" jsonb,
	"given_at" timestamp with time zone DEFAULT now() NOT NULL,
	"nth" integer DEFAULT 0 NOT NULL
);
--> statement-breakpoint
ALTER TABLE "given_files" ADD CONSTRAINT "given_files_job_id_jobs_id_fk" FOREIGN KEY ("job_id") REFERENCES "public"."jobs"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "given_files" ADD CONSTRAINT "given_files_file_assets_sha256_fk" FOREIGN KEY ("file") REFERENCES "public"."assets"("sha256") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "given_files_of_job" ON "given_files" USING btree ("job_id","given_at");