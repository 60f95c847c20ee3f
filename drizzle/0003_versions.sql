ALTER TABLE "job_revisions" ADD COLUMN "picture" jsonb;--> statement-breakpoint
ALTER TABLE "job_revisions" ADD COLUMN "open_findings" integer DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE "job_revisions" ADD COLUMN "name" text;