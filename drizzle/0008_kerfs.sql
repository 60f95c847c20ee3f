CREATE TABLE "kerfs" (
	"material" text NOT NULL,
	"process" text NOT NULL,
	"kerf_mm" double precision NOT NULL,
	CONSTRAINT "kerfs_material_process_pk" PRIMARY KEY("material","process")
);
--> statement-breakpoint
ALTER TABLE "materials" ADD COLUMN "process" text DEFAULT 'laser' NOT NULL;--> statement-breakpoint
ALTER TABLE "kerfs" ADD CONSTRAINT "kerfs_material_materials_name_fk" FOREIGN KEY ("material") REFERENCES "public"."materials"("name") ON DELETE cascade ON UPDATE cascade;
--> statement-breakpoint
UPDATE "materials" SET "process" = 'plasma' WHERE "name" IN ('Mild steel', 'Stainless steel', 'Aluminium');
--> statement-breakpoint
UPDATE "materials" SET "process" = 'knife' WHERE "name" = 'Vinyl film';
--> statement-breakpoint
INSERT INTO "kerfs" ("material", "process", "kerf_mm") SELECT "name", "process", "kerf_mm" FROM "materials";
--> statement-breakpoint
INSERT INTO "kerfs" ("material", "process", "kerf_mm")
SELECT m."name", k."process", k."kerf_mm" FROM (VALUES
	('Mild steel', 'laser', 0.3),
	('Mild steel', 'water jet', 0.9),
	('Stainless steel', 'laser', 0.25),
	('Stainless steel', 'water jet', 0.9),
	('Aluminium', 'laser', 0.3),
	('Aluminium', 'water jet', 0.9),
	('Aluminium', 'router', 3),
	('Birch plywood', 'router', 3),
	('Poplar plywood', 'router', 3),
	('MDF', 'router', 3),
	('Hardwood', 'router', 3),
	('Acrylic', 'router', 3),
	('Engraving laminate', 'router', 1),
	('Cork', 'water jet', 0.9),
	('Cork', 'knife', 0),
	('Card', 'knife', 0),
	('Leather', 'knife', 0),
	('Felt', 'knife', 0),
	('Vinyl film', 'laser', 0.1)
) AS k("name", "process", "kerf_mm") JOIN "materials" m ON m."name" = k."name";
