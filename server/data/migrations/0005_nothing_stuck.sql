CREATE TABLE "job_members" (
	"crew_id" uuid NOT NULL,
	"job_id" uuid NOT NULL,
	"member_id" uuid NOT NULL,
	CONSTRAINT "job_members_crew_id_member_id_job_id_pk" PRIMARY KEY("crew_id","member_id","job_id")
);
--> statement-breakpoint
CREATE TABLE "rate_limits" (
	"key" text PRIMARY KEY NOT NULL,
	"points" integer DEFAULT 0 NOT NULL,
	"expire" bigint
);
--> statement-breakpoint
CREATE TABLE "terrain_changes" (
	"crew_id" uuid NOT NULL,
	"key" text NOT NULL,
	"version" integer NOT NULL,
	CONSTRAINT "terrain_changes_crew_id_key_pk" PRIMARY KEY("crew_id","key")
);
--> statement-breakpoint
ALTER TABLE "landmarks" DROP CONSTRAINT "landmarks_crew_id_stop_id_stops_crew_id_id_fk";--> statement-breakpoint
ALTER TABLE "nodes" DROP CONSTRAINT "nodes_crew_id_design_id_designs_crew_id_id_fk";--> statement-breakpoint
ALTER TABLE "obstacles" DROP CONSTRAINT "obstacles_crew_id_stop_id_stops_crew_id_id_fk";--> statement-breakpoint
ALTER TABLE "readings" DROP CONSTRAINT "readings_crew_id_spot_id_spots_crew_id_id_fk";--> statement-breakpoint
ALTER TABLE "readings" DROP CONSTRAINT "readings_crew_id_stop_id_stops_crew_id_id_fk";--> statement-breakpoint
ALTER TABLE "runs" DROP CONSTRAINT "runs_crew_id_design_id_designs_crew_id_id_fk";--> statement-breakpoint
ALTER TABLE "speed_runs" DROP CONSTRAINT "speed_runs_crew_id_spot_id_spots_crew_id_id_fk";--> statement-breakpoint
ALTER TABLE "speed_runs" DROP CONSTRAINT "speed_runs_crew_id_stop_id_stops_crew_id_id_fk";--> statement-breakpoint
ALTER TABLE "steps" DROP CONSTRAINT "steps_crew_id_sweep_id_sweeps_crew_id_id_fk";--> statement-breakpoint
ALTER TABLE "sweeps" DROP CONSTRAINT "sweeps_crew_id_stop_id_stops_crew_id_id_fk";--> statement-breakpoint
ALTER TABLE "sweeps" DROP CONSTRAINT "sweeps_crew_id_design_id_designs_crew_id_id_fk";--> statement-breakpoint
ALTER TABLE "terrain_layers" DROP CONSTRAINT "terrain_layers_crew_id_tile_terrain_tiles_crew_id_name_fk";--> statement-breakpoint
ALTER TABLE "terrain_layers" DROP CONSTRAINT "terrain_layers_crew_id_key_tile_pk";--> statement-breakpoint
ALTER TABLE "terrain_tiles" DROP CONSTRAINT "terrain_tiles_crew_id_name_pk";--> statement-breakpoint
DROP TABLE "sign_in_attempts" CASCADE;--> statement-breakpoint
DROP INDEX "applied_changes_feed";--> statement-breakpoint
DROP INDEX "checks_job";--> statement-breakpoint
DROP INDEX "designs_job";--> statement-breakpoint
DROP INDEX "landmarks_job";--> statement-breakpoint
DROP INDEX "nodes_job";--> statement-breakpoint
DROP INDEX "obstacles_job";--> statement-breakpoint
DROP INDEX "picture_files_job";--> statement-breakpoint
DROP INDEX "pictures_job";--> statement-breakpoint
DROP INDEX "readings_job";--> statement-breakpoint
DROP INDEX "runs_job";--> statement-breakpoint
DROP INDEX "sites_job";--> statement-breakpoint
DROP INDEX "speed_runs_job";--> statement-breakpoint
DROP INDEX "spots_job";--> statement-breakpoint
DROP INDEX "steps_job";--> statement-breakpoint
DROP INDEX "stops_job";--> statement-breakpoint
DROP INDEX "sweeps_job";--> statement-breakpoint
DROP INDEX "terrain_layers_tile";--> statement-breakpoint
ALTER TABLE "crews" ADD COLUMN "terrain_version" integer DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE "imports" ADD COLUMN "tries" smallint DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE "jobs" ADD COLUMN "searched" text GENERATED ALWAYS AS (lower(name || ' ' || coalesce(customer_name, '') || ' ' || coalesce(customer_address, ''))) STORED;--> statement-breakpoint
ALTER TABLE "jobs" ADD COLUMN "state" text DEFAULT 'new' NOT NULL;--> statement-breakpoint
ALTER TABLE "members" ADD COLUMN "sealing_secret" "bytea" DEFAULT decode(replace(gen_random_uuid()::text || gen_random_uuid()::text, '-', ''), 'hex') NOT NULL;--> statement-breakpoint
ALTER TABLE "terrain_layers" ADD COLUMN "kind" text DEFAULT 'ground' NOT NULL;--> statement-breakpoint
ALTER TABLE "tokens" ADD COLUMN "made_by" uuid;--> statement-breakpoint
UPDATE "terrain_layers" l SET "kind" = t."kind" FROM "terrain_tiles" t WHERE t."crew_id" = l."crew_id" AND t."name" = l."tile";--> statement-breakpoint
INSERT INTO "job_members" ("crew_id", "job_id", "member_id") SELECT DISTINCT a."crew_id", a."job_id", a."member_id" FROM "applied_changes" a JOIN "members" m ON m."crew_id" = a."crew_id" AND m."id" = a."member_id";--> statement-breakpoint
UPDATE "mappings" SET "signature" = encode(sha256(convert_to("signature", 'UTF8')), 'hex');--> statement-breakpoint
UPDATE "jobs" j SET "design_id" = NULL WHERE "design_id" IS NOT NULL AND NOT EXISTS (SELECT 1 FROM "designs" d WHERE d."crew_id" = j."crew_id" AND d."job_id" = j."id" AND d."id" = j."design_id");--> statement-breakpoint
UPDATE "jobs" j SET "baseline_spot_id" = NULL WHERE "baseline_spot_id" IS NOT NULL AND NOT EXISTS (SELECT 1 FROM "spots" s WHERE s."crew_id" = j."crew_id" AND s."job_id" = j."id" AND s."id" = j."baseline_spot_id");--> statement-breakpoint
UPDATE "jobs" j SET "stop_id" = NULL WHERE "stop_id" IS NOT NULL AND NOT EXISTS (SELECT 1 FROM "stops" s WHERE s."crew_id" = j."crew_id" AND s."job_id" = j."id" AND s."id" = j."stop_id");--> statement-breakpoint
DELETE FROM "runs" r WHERE NOT EXISTS (SELECT 1 FROM "nodes" n WHERE n."crew_id" = r."crew_id" AND n."job_id" = r."job_id" AND n."id" = r."from_node_id") OR NOT EXISTS (SELECT 1 FROM "nodes" n WHERE n."crew_id" = r."crew_id" AND n."job_id" = r."job_id" AND n."id" = r."to_node_id");--> statement-breakpoint
UPDATE "readings" r SET "replaces_id" = NULL WHERE "replaces_id" IS NOT NULL AND NOT EXISTS (SELECT 1 FROM "readings" o WHERE o."crew_id" = r."crew_id" AND o."job_id" = r."job_id" AND o."id" = r."replaces_id");--> statement-breakpoint
UPDATE "speed_runs" r SET "replaces_id" = NULL WHERE "replaces_id" IS NOT NULL AND NOT EXISTS (SELECT 1 FROM "speed_runs" o WHERE o."crew_id" = r."crew_id" AND o."job_id" = r."job_id" AND o."id" = r."replaces_id");--> statement-breakpoint
UPDATE "steps" r SET "replaces_id" = NULL WHERE "replaces_id" IS NOT NULL AND NOT EXISTS (SELECT 1 FROM "steps" o WHERE o."crew_id" = r."crew_id" AND o."job_id" = r."job_id" AND o."id" = r."replaces_id");--> statement-breakpoint
UPDATE "readings" r SET "stop_id" = NULL WHERE "stop_id" IS NOT NULL AND NOT EXISTS (SELECT 1 FROM "stops" s WHERE s."crew_id" = r."crew_id" AND s."job_id" = r."job_id" AND s."id" = r."stop_id");--> statement-breakpoint
UPDATE "speed_runs" r SET "stop_id" = NULL WHERE "stop_id" IS NOT NULL AND NOT EXISTS (SELECT 1 FROM "stops" s WHERE s."crew_id" = r."crew_id" AND s."job_id" = r."job_id" AND s."id" = r."stop_id");--> statement-breakpoint
UPDATE "sweeps" r SET "stop_id" = NULL WHERE "stop_id" IS NOT NULL AND NOT EXISTS (SELECT 1 FROM "stops" s WHERE s."crew_id" = r."crew_id" AND s."job_id" = r."job_id" AND s."id" = r."stop_id");--> statement-breakpoint
DELETE FROM "obstacles" r WHERE "stop_id" IS NOT NULL AND NOT EXISTS (SELECT 1 FROM "stops" s WHERE s."crew_id" = r."crew_id" AND s."job_id" = r."job_id" AND s."id" = r."stop_id");--> statement-breakpoint
DELETE FROM "landmarks" r WHERE "stop_id" IS NOT NULL AND NOT EXISTS (SELECT 1 FROM "stops" s WHERE s."crew_id" = r."crew_id" AND s."job_id" = r."job_id" AND s."id" = r."stop_id");--> statement-breakpoint
DELETE FROM "readings" r WHERE NOT EXISTS (SELECT 1 FROM "spots" s WHERE s."crew_id" = r."crew_id" AND s."job_id" = r."job_id" AND s."id" = r."spot_id");--> statement-breakpoint
DELETE FROM "speed_runs" r WHERE NOT EXISTS (SELECT 1 FROM "spots" s WHERE s."crew_id" = r."crew_id" AND s."job_id" = r."job_id" AND s."id" = r."spot_id");--> statement-breakpoint
DELETE FROM "nodes" r WHERE NOT EXISTS (SELECT 1 FROM "designs" d WHERE d."crew_id" = r."crew_id" AND d."job_id" = r."job_id" AND d."id" = r."design_id");--> statement-breakpoint
DELETE FROM "runs" r WHERE NOT EXISTS (SELECT 1 FROM "designs" d WHERE d."crew_id" = r."crew_id" AND d."job_id" = r."job_id" AND d."id" = r."design_id");--> statement-breakpoint
DELETE FROM "sweeps" r WHERE NOT EXISTS (SELECT 1 FROM "designs" d WHERE d."crew_id" = r."crew_id" AND d."job_id" = r."job_id" AND d."id" = r."design_id");--> statement-breakpoint
UPDATE "designs" d SET "mast_id" = NULL WHERE "mast_id" IS NOT NULL AND NOT EXISTS (SELECT 1 FROM "masts" m WHERE m."crew_id" = d."crew_id" AND m."id" = d."mast_id" AND (m."job_id" IS NULL OR m."job_id" = d."job_id"));--> statement-breakpoint
DELETE FROM "cells" c USING "masts" m WHERE c."job_id" IS NOT NULL AND m."crew_id" = c."crew_id" AND m."id" = c."mast_id" AND m."job_id" IS NOT NULL AND m."job_id" <> c."job_id";--> statement-breakpoint
DELETE FROM "steps" r WHERE NOT EXISTS (SELECT 1 FROM "sweeps" s WHERE s."crew_id" = r."crew_id" AND s."job_id" = r."job_id" AND s."id" = r."sweep_id");--> statement-breakpoint
ALTER TABLE "terrain_layers" ADD CONSTRAINT "terrain_layers_crew_id_kind_key_tile_pk" PRIMARY KEY("crew_id","kind","key","tile");--> statement-breakpoint
ALTER TABLE "terrain_tiles" ADD CONSTRAINT "terrain_tiles_crew_id_kind_name_pk" PRIMARY KEY("crew_id","kind","name");--> statement-breakpoint
ALTER TABLE "applied_changes" ADD CONSTRAINT "applied_changes_feed" UNIQUE("crew_id","job_id","sequence");--> statement-breakpoint
ALTER TABLE "checks" ADD CONSTRAINT "checks_of_job" UNIQUE("crew_id","job_id","id");--> statement-breakpoint
ALTER TABLE "designs" ADD CONSTRAINT "designs_of_job" UNIQUE("crew_id","job_id","id");--> statement-breakpoint
ALTER TABLE "landmarks" ADD CONSTRAINT "landmarks_of_job" UNIQUE("crew_id","job_id","id");--> statement-breakpoint
ALTER TABLE "nodes" ADD CONSTRAINT "nodes_of_job" UNIQUE("crew_id","job_id","id");--> statement-breakpoint
ALTER TABLE "obstacles" ADD CONSTRAINT "obstacles_of_job" UNIQUE("crew_id","job_id","id");--> statement-breakpoint
ALTER TABLE "picture_files" ADD CONSTRAINT "picture_files_of_job" UNIQUE("crew_id","job_id","id");--> statement-breakpoint
ALTER TABLE "pictures" ADD CONSTRAINT "pictures_of_job" UNIQUE("crew_id","job_id","id");--> statement-breakpoint
ALTER TABLE "readings" ADD CONSTRAINT "readings_of_job" UNIQUE("crew_id","job_id","id");--> statement-breakpoint
ALTER TABLE "runs" ADD CONSTRAINT "runs_of_job" UNIQUE("crew_id","job_id","id");--> statement-breakpoint
ALTER TABLE "sites" ADD CONSTRAINT "sites_of_job" UNIQUE("crew_id","job_id","id");--> statement-breakpoint
ALTER TABLE "speed_runs" ADD CONSTRAINT "speed_runs_of_job" UNIQUE("crew_id","job_id","id");--> statement-breakpoint
ALTER TABLE "spots" ADD CONSTRAINT "spots_of_job" UNIQUE("crew_id","job_id","id");--> statement-breakpoint
ALTER TABLE "steps" ADD CONSTRAINT "steps_of_job" UNIQUE("crew_id","job_id","id");--> statement-breakpoint
ALTER TABLE "stops" ADD CONSTRAINT "stops_of_job" UNIQUE("crew_id","job_id","id");--> statement-breakpoint
ALTER TABLE "sweeps" ADD CONSTRAINT "sweeps_of_job" UNIQUE("crew_id","job_id","id");--> statement-breakpoint
ALTER TABLE "job_members" ADD CONSTRAINT "job_members_crew_id_job_id_jobs_crew_id_id_fk" FOREIGN KEY ("crew_id","job_id") REFERENCES "public"."jobs"("crew_id","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "job_members" ADD CONSTRAINT "job_members_crew_id_member_id_members_crew_id_id_fk" FOREIGN KEY ("crew_id","member_id") REFERENCES "public"."members"("crew_id","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "terrain_changes" ADD CONSTRAINT "terrain_changes_crew_id_crews_id_fk" FOREIGN KEY ("crew_id") REFERENCES "public"."crews"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "landmarks" ADD CONSTRAINT "ref:landmarks.stopId" FOREIGN KEY ("crew_id","job_id","stop_id") REFERENCES "public"."stops"("crew_id","job_id","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "nodes" ADD CONSTRAINT "ref:nodes.designId" FOREIGN KEY ("crew_id","job_id","design_id") REFERENCES "public"."designs"("crew_id","job_id","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "obstacles" ADD CONSTRAINT "ref:obstacles.stopId" FOREIGN KEY ("crew_id","job_id","stop_id") REFERENCES "public"."stops"("crew_id","job_id","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "readings" ADD CONSTRAINT "ref:readings.spotId" FOREIGN KEY ("crew_id","job_id","spot_id") REFERENCES "public"."spots"("crew_id","job_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "readings" ADD CONSTRAINT "ref:readings.stopId" FOREIGN KEY ("crew_id","job_id","stop_id") REFERENCES "public"."stops"("crew_id","job_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "readings" ADD CONSTRAINT "ref:readings.replacesId" FOREIGN KEY ("crew_id","job_id","replaces_id") REFERENCES "public"."readings"("crew_id","job_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "runs" ADD CONSTRAINT "ref:runs.designId" FOREIGN KEY ("crew_id","job_id","design_id") REFERENCES "public"."designs"("crew_id","job_id","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "runs" ADD CONSTRAINT "ref:runs.fromNodeId" FOREIGN KEY ("crew_id","job_id","from_node_id") REFERENCES "public"."nodes"("crew_id","job_id","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "runs" ADD CONSTRAINT "ref:runs.toNodeId" FOREIGN KEY ("crew_id","job_id","to_node_id") REFERENCES "public"."nodes"("crew_id","job_id","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "speed_runs" ADD CONSTRAINT "ref:speedRuns.spotId" FOREIGN KEY ("crew_id","job_id","spot_id") REFERENCES "public"."spots"("crew_id","job_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "speed_runs" ADD CONSTRAINT "ref:speedRuns.stopId" FOREIGN KEY ("crew_id","job_id","stop_id") REFERENCES "public"."stops"("crew_id","job_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "speed_runs" ADD CONSTRAINT "ref:speedRuns.replacesId" FOREIGN KEY ("crew_id","job_id","replaces_id") REFERENCES "public"."speed_runs"("crew_id","job_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "steps" ADD CONSTRAINT "ref:steps.sweepId" FOREIGN KEY ("crew_id","job_id","sweep_id") REFERENCES "public"."sweeps"("crew_id","job_id","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "steps" ADD CONSTRAINT "ref:steps.replacesId" FOREIGN KEY ("crew_id","job_id","replaces_id") REFERENCES "public"."steps"("crew_id","job_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "sweeps" ADD CONSTRAINT "ref:sweeps.stopId" FOREIGN KEY ("crew_id","job_id","stop_id") REFERENCES "public"."stops"("crew_id","job_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "sweeps" ADD CONSTRAINT "ref:sweeps.designId" FOREIGN KEY ("crew_id","job_id","design_id") REFERENCES "public"."designs"("crew_id","job_id","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "terrain_layers" ADD CONSTRAINT "terrain_layers_of_tile" FOREIGN KEY ("crew_id","kind","tile") REFERENCES "public"."terrain_tiles"("crew_id","kind","name") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "jobs" ADD CONSTRAINT "ref:jobs.baselineSpotId" FOREIGN KEY ("crew_id","id","baseline_spot_id") REFERENCES "public"."spots"("crew_id","job_id","id") ON DELETE SET NULL ("baseline_spot_id");--> statement-breakpoint
ALTER TABLE "jobs" ADD CONSTRAINT "ref:jobs.designId" FOREIGN KEY ("crew_id","id","design_id") REFERENCES "public"."designs"("crew_id","job_id","id") ON DELETE SET NULL ("design_id");--> statement-breakpoint
ALTER TABLE "jobs" ADD CONSTRAINT "ref:jobs.stopId" FOREIGN KEY ("crew_id","id","stop_id") REFERENCES "public"."stops"("crew_id","job_id","id") ON DELETE SET NULL ("stop_id");--> statement-breakpoint
CREATE INDEX "job_members_job" ON "job_members" USING btree ("crew_id","job_id");--> statement-breakpoint
CREATE INDEX "rate_limits_expire" ON "rate_limits" USING btree ("expire");--> statement-breakpoint
CREATE INDEX "terrain_changes_version" ON "terrain_changes" USING btree ("crew_id","version");--> statement-breakpoint
CREATE INDEX "jobs_changed" ON "jobs" USING btree ("crew_id","changed_at","id");--> statement-breakpoint
CREATE INDEX "tokens_member" ON "tokens" USING btree ("crew_id","member_id");--> statement-breakpoint
CREATE INDEX "tokens_expiry" ON "tokens" USING btree ("expires_at");--> statement-breakpoint
CREATE INDEX "terrain_layers_tile" ON "terrain_layers" USING btree ("crew_id","kind","tile");--> statement-breakpoint
-- A row of a job may name a mast of its own job or one of the crew's list, which no foreign key can say.
CREATE FUNCTION "mast_of_job_or_crew"() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
	IF NOT EXISTS (SELECT 1 FROM "masts" m WHERE m."crew_id" = NEW."crew_id" AND m."id" = NEW."mast_id" AND (m."job_id" IS NULL OR m."job_id" = NEW."job_id")) THEN
		RAISE EXCEPTION 'no such mast in this job or crew' USING ERRCODE = '23503', CONSTRAINT = 'ref:' || TG_ARGV[0] || '.mastId';
	END IF;
	RETURN NEW;
END $$;
--> statement-breakpoint
CREATE TRIGGER "cells_mast" BEFORE INSERT OR UPDATE OF "mast_id" ON "cells" FOR EACH ROW WHEN (NEW."job_id" IS NOT NULL) EXECUTE FUNCTION "mast_of_job_or_crew"('cells');--> statement-breakpoint
CREATE TRIGGER "designs_mast" BEFORE INSERT OR UPDATE OF "mast_id" ON "designs" FOR EACH ROW WHEN (NEW."mast_id" IS NOT NULL) EXECUTE FUNCTION "mast_of_job_or_crew"('designs');--> statement-breakpoint
CREATE FUNCTION "designs_let_go_of_mast"() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
	UPDATE "designs" SET "mast_id" = NULL WHERE "crew_id" = OLD."crew_id" AND "job_id" = OLD."job_id" AND "mast_id" = OLD."id";
	RETURN OLD;
END $$;
--> statement-breakpoint
CREATE TRIGGER "masts_gone" AFTER DELETE ON "masts" FOR EACH ROW WHEN (OLD."job_id" IS NOT NULL) EXECUTE FUNCTION "designs_let_go_of_mast"();--> statement-breakpoint
UPDATE "jobs" SET "state" = CASE
	WHEN EXISTS (SELECT 1 FROM "checks" c WHERE c."crew_id" = "jobs"."crew_id" AND c."job_id" = "jobs"."id" AND c."key" = 'handover' AND c."done") THEN 'keep'
	WHEN EXISTS (SELECT 1 FROM "speed_runs" r WHERE r."crew_id" = "jobs"."crew_id" AND r."job_id" = "jobs"."id" AND r."phase" = 'after') THEN 'prove'
	WHEN EXISTS (SELECT 1 FROM "designs" d WHERE d."crew_id" = "jobs"."crew_id" AND d."job_id" = "jobs"."id" AND d."aimed_deg" IS NOT NULL) THEN 'fit'
	WHEN EXISTS (SELECT 1 FROM "nodes" n WHERE n."crew_id" = "jobs"."crew_id" AND n."job_id" = "jobs"."id" AND n."role" = 'outside') THEN 'plan'
	WHEN EXISTS (SELECT 1 FROM "readings" r WHERE r."crew_id" = "jobs"."crew_id" AND r."job_id" = "jobs"."id" AND r."phase" = 'before') THEN 'scout'
	ELSE 'new' END;

