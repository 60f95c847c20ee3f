CREATE TABLE "face_marks" (
	"face" text PRIMARY KEY NOT NULL,
	"favourite" boolean DEFAULT false NOT NULL,
	"look" text,
	"used_at" timestamp with time zone
);
--> statement-breakpoint
CREATE TABLE "typefaces" (
	"content" text PRIMARY KEY NOT NULL,
	"faces" jsonb NOT NULL,
	"added_at" timestamp with time zone DEFAULT now() NOT NULL,
	"removed_at" timestamp with time zone
);
--> statement-breakpoint
ALTER TABLE "typefaces" ADD CONSTRAINT "typefaces_content_assets_sha256_fk" FOREIGN KEY ("content") REFERENCES "public"."assets"("sha256") ON DELETE no action ON UPDATE no action;