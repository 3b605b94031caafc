CREATE EXTENSION IF NOT EXISTS btree_gist;--> statement-breakpoint
CREATE TABLE "cover_blocks" (
	"crew_id" uuid NOT NULL,
	"key" text NOT NULL,
	"side" smallint NOT NULL,
	"tile" text NOT NULL,
	"heights" "bytea" NOT NULL,
	CONSTRAINT "cover_blocks_crew_id_key_pk" PRIMARY KEY("crew_id","key")
);
--> statement-breakpoint
CREATE TABLE "import_rejects" (
	"crew_id" uuid NOT NULL,
	"import_id" uuid NOT NULL,
	"line" integer NOT NULL,
	"reason" text NOT NULL,
	"row" text NOT NULL,
	CONSTRAINT "import_rejects_crew_id_import_id_line_pk" PRIMARY KEY("crew_id","import_id","line")
);
--> statement-breakpoint
CREATE TABLE "imports" (
	"crew_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"name" text NOT NULL,
	"state" text DEFAULT 'receiving' NOT NULL,
	"rules" jsonb NOT NULL,
	"delimiter" text NOT NULL,
	"next_piece" integer DEFAULT 0 NOT NULL,
	"carry" text DEFAULT '' NOT NULL,
	"lines" integer DEFAULT 0 NOT NULL,
	"rows" integer DEFAULT 0 NOT NULL,
	"kept" integer DEFAULT 0 NOT NULL,
	"masts" integer DEFAULT 0 NOT NULL,
	"cells" integer DEFAULT 0 NOT NULL,
	"changed" integer DEFAULT 0 NOT NULL,
	"set_id" uuid,
	"step" text,
	"error" text,
	"started_by" text,
	"started_at" timestamp with time zone DEFAULT now() NOT NULL,
	"changed_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "imports_crew_id_id_pk" PRIMARY KEY("crew_id","id")
);
--> statement-breakpoint
CREATE TABLE "landmarks" (
	"crew_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"version" integer DEFAULT 0 NOT NULL,
	"field_versions" jsonb DEFAULT '{}'::jsonb NOT NULL,
	"job_id" uuid NOT NULL,
	"stop_id" uuid,
	"name" text NOT NULL,
	"lat_deg" double precision NOT NULL,
	"lon_deg" double precision NOT NULL,
	CONSTRAINT "landmarks_crew_id_id_pk" PRIMARY KEY("crew_id","id")
);
--> statement-breakpoint
CREATE TABLE "mappings" (
	"crew_id" uuid NOT NULL,
	"signature" text NOT NULL,
	"rules" jsonb NOT NULL,
	"used_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "mappings_crew_id_signature_pk" PRIMARY KEY("crew_id","signature")
);
--> statement-breakpoint
CREATE TABLE "obstacles" (
	"crew_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"version" integer DEFAULT 0 NOT NULL,
	"field_versions" jsonb DEFAULT '{}'::jsonb NOT NULL,
	"job_id" uuid NOT NULL,
	"stop_id" uuid,
	"name" text NOT NULL,
	"from_deg" double precision NOT NULL,
	"to_deg" double precision NOT NULL,
	"distance_m" double precision NOT NULL,
	"height_m" double precision NOT NULL,
	CONSTRAINT "obstacles_crew_id_id_pk" PRIMARY KEY("crew_id","id"),
	CONSTRAINT "obstacles_distance" CHECK ("obstacles"."distance_m" > 0)
);
--> statement-breakpoint
CREATE TABLE "picture_files" (
	"crew_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"version" integer DEFAULT 0 NOT NULL,
	"field_versions" jsonb DEFAULT '{}'::jsonb NOT NULL,
	"job_id" uuid NOT NULL,
	"mime" text NOT NULL,
	"bytes" "bytea" NOT NULL,
	CONSTRAINT "picture_files_crew_id_id_pk" PRIMARY KEY("crew_id","id")
);
--> statement-breakpoint
CREATE TABLE "pictures" (
	"crew_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"version" integer DEFAULT 0 NOT NULL,
	"field_versions" jsonb DEFAULT '{}'::jsonb NOT NULL,
	"job_id" uuid NOT NULL,
	"name" text NOT NULL,
	"width_px" integer NOT NULL,
	"height_px" integer NOT NULL,
	"affine" jsonb NOT NULL,
	"opacity" double precision DEFAULT 0.8 NOT NULL,
	CONSTRAINT "pictures_crew_id_id_pk" PRIMARY KEY("crew_id","id")
);
--> statement-breakpoint
CREATE TABLE "stops" (
	"crew_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"version" integer DEFAULT 0 NOT NULL,
	"field_versions" jsonb DEFAULT '{}'::jsonb NOT NULL,
	"job_id" uuid NOT NULL,
	"name" text NOT NULL,
	"lat_deg" double precision NOT NULL,
	"lon_deg" double precision NOT NULL,
	"ground_m" double precision,
	"zone" text DEFAULT 'UTC' NOT NULL,
	"arrive_on" date,
	"leave_on" date,
	"heading_deg" double precision,
	"swing_deg" double precision DEFAULT 0 NOT NULL,
	"notes" text,
	CONSTRAINT "stops_crew_id_id_pk" PRIMARY KEY("crew_id","id"),
	CONSTRAINT "stops_lat" CHECK ("stops"."lat_deg" between -90 and 90),
	CONSTRAINT "stops_lon" CHECK ("stops"."lon_deg" between -180 and 180)
);
--> statement-breakpoint
CREATE TABLE "terrain_layers" (
	"crew_id" uuid NOT NULL,
	"tile" text NOT NULL,
	"key" text NOT NULL,
	"side" smallint NOT NULL,
	"heights" "bytea" NOT NULL,
	CONSTRAINT "terrain_layers_crew_id_key_tile_pk" PRIMARY KEY("crew_id","key","tile")
);
--> statement-breakpoint
DROP INDEX "masts_place";--> statement-breakpoint
ALTER TABLE "cells" ADD COLUMN "channel" integer;--> statement-breakpoint
ALTER TABLE "jobs" ADD COLUMN "stop_id" uuid;--> statement-breakpoint
ALTER TABLE "jobs" ADD COLUMN "k_factor" double precision DEFAULT 1.3333333333333333 NOT NULL;--> statement-breakpoint
ALTER TABLE "mast_sets" ADD COLUMN "listed_on" date;--> statement-breakpoint
ALTER TABLE "masts" ADD COLUMN "accuracy_m" double precision;--> statement-breakpoint
ALTER TABLE "masts" ADD COLUMN "seen_on" date;--> statement-breakpoint
ALTER TABLE "masts" ADD COLUMN "bands" text[] DEFAULT '{}' NOT NULL;--> statement-breakpoint
ALTER TABLE "sites" ADD COLUMN "heading_deg" double precision;--> statement-breakpoint
ALTER TABLE "sites" ADD COLUMN "swing_deg" double precision DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE "sites" ADD COLUMN "deviation" jsonb;--> statement-breakpoint
ALTER TABLE "terrain_tiles" ADD COLUMN "kind" text DEFAULT 'ground' NOT NULL;--> statement-breakpoint
ALTER TABLE "cover_blocks" ADD CONSTRAINT "cover_blocks_crew_id_crews_id_fk" FOREIGN KEY ("crew_id") REFERENCES "public"."crews"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "import_rejects" ADD CONSTRAINT "import_rejects_crew_id_import_id_imports_crew_id_id_fk" FOREIGN KEY ("crew_id","import_id") REFERENCES "public"."imports"("crew_id","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "imports" ADD CONSTRAINT "imports_crew_id_crews_id_fk" FOREIGN KEY ("crew_id") REFERENCES "public"."crews"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "landmarks" ADD CONSTRAINT "landmarks_crew_id_job_id_jobs_crew_id_id_fk" FOREIGN KEY ("crew_id","job_id") REFERENCES "public"."jobs"("crew_id","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "landmarks" ADD CONSTRAINT "landmarks_crew_id_stop_id_stops_crew_id_id_fk" FOREIGN KEY ("crew_id","stop_id") REFERENCES "public"."stops"("crew_id","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "mappings" ADD CONSTRAINT "mappings_crew_id_crews_id_fk" FOREIGN KEY ("crew_id") REFERENCES "public"."crews"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "obstacles" ADD CONSTRAINT "obstacles_crew_id_job_id_jobs_crew_id_id_fk" FOREIGN KEY ("crew_id","job_id") REFERENCES "public"."jobs"("crew_id","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "obstacles" ADD CONSTRAINT "obstacles_crew_id_stop_id_stops_crew_id_id_fk" FOREIGN KEY ("crew_id","stop_id") REFERENCES "public"."stops"("crew_id","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "picture_files" ADD CONSTRAINT "picture_files_crew_id_job_id_jobs_crew_id_id_fk" FOREIGN KEY ("crew_id","job_id") REFERENCES "public"."jobs"("crew_id","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "pictures" ADD CONSTRAINT "pictures_crew_id_job_id_jobs_crew_id_id_fk" FOREIGN KEY ("crew_id","job_id") REFERENCES "public"."jobs"("crew_id","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "stops" ADD CONSTRAINT "stops_crew_id_job_id_jobs_crew_id_id_fk" FOREIGN KEY ("crew_id","job_id") REFERENCES "public"."jobs"("crew_id","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "terrain_layers" ADD CONSTRAINT "terrain_layers_crew_id_tile_terrain_tiles_crew_id_name_fk" FOREIGN KEY ("crew_id","tile") REFERENCES "public"."terrain_tiles"("crew_id","name") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "landmarks_job" ON "landmarks" USING btree ("crew_id","job_id");--> statement-breakpoint
CREATE INDEX "obstacles_job" ON "obstacles" USING btree ("crew_id","job_id");--> statement-breakpoint
CREATE INDEX "picture_files_job" ON "picture_files" USING btree ("crew_id","job_id");--> statement-breakpoint
CREATE INDEX "pictures_job" ON "pictures" USING btree ("crew_id","job_id");--> statement-breakpoint
CREATE INDEX "stops_job" ON "stops" USING btree ("crew_id","job_id");--> statement-breakpoint
CREATE INDEX "terrain_layers_tile" ON "terrain_layers" USING btree ("crew_id","tile");--> statement-breakpoint
CREATE INDEX "masts_carrier" ON "masts" USING btree ("crew_id","carrier");--> statement-breakpoint
CREATE INDEX "masts_set" ON "masts" USING btree ("crew_id","set_id");--> statement-breakpoint
CREATE INDEX "masts_place" ON "masts" USING gist ("crew_id",cube(array[cos(radians("lat_deg")) * cos(radians("lon_deg")), cos(radians("lat_deg")) * sin(radians("lon_deg")), sin(radians("lat_deg"))]));--> statement-breakpoint
INSERT INTO "terrain_layers" ("crew_id", "tile", "key", "side", "heights") SELECT b."crew_id", b."tile", b."key", b."side", b."heights" FROM "terrain_blocks" b JOIN "terrain_tiles" t ON t."crew_id" = b."crew_id" AND t."name" = b."tile";--> statement-breakpoint
UPDATE "masts" m SET "bands" = c."bands" FROM (SELECT "crew_id", "mast_id", array_agg(DISTINCT "band" ORDER BY "band") AS "bands" FROM "cells" GROUP BY 1, 2) c WHERE c."crew_id" = m."crew_id" AND c."mast_id" = m."id";
