CREATE TABLE "materials" (
	"name" text PRIMARY KEY NOT NULL,
	"least_width_mm" double precision NOT NULL,
	"least_per_thickness" double precision NOT NULL,
	"kerf_mm" double precision NOT NULL
);
--> statement-breakpoint
INSERT INTO "materials" ("name", "least_width_mm", "least_per_thickness", "kerf_mm") VALUES
	('Birch plywood', 1.2, 0.5, 0.2),
	('Poplar plywood', 1.5, 0.5, 0.2),
	('MDF', 1.5, 0.5, 0.2),
	('Hardwood', 1.8, 0.6, 0.2),
	('Cork', 3, 0.5, 0.2),
	('Card', 0.8, 0, 0.1),
	('Acrylic', 1, 0.5, 0.15),
	('Engraving laminate', 0.8, 0.5, 0.15),
	('Leather', 1.5, 0.5, 0.2),
	('Felt', 2.5, 0.5, 0.2),
	('Mild steel', 1.5, 1, 1.2),
	('Stainless steel', 1.2, 1, 0.8),
	('Aluminium', 1.5, 1, 1),
	('Vinyl film', 0.6, 0, 0);
