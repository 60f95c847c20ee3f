DROP TABLE "kerfs" CASCADE;--> statement-breakpoint
DROP TABLE "materials" CASCADE;