CREATE TABLE "calls" (
	"crew_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"version" integer DEFAULT 0 NOT NULL,
	"field_versions" jsonb DEFAULT '{}'::jsonb NOT NULL,
	"job_id" uuid NOT NULL,
	"taken_at_utc" timestamp with time zone NOT NULL,
	"setup_id" uuid,
	"replaces_id" uuid,
	"withdrawn" boolean DEFAULT false NOT NULL,
	"stop_id" uuid,
	"spot_id" uuid NOT NULL,
	"made" boolean NOT NULL,
	"heard" boolean NOT NULL,
	"dropped" boolean NOT NULL,
	CONSTRAINT "calls_crew_id_id_pk" PRIMARY KEY("crew_id","id"),
	CONSTRAINT "calls_of_job" UNIQUE("crew_id","job_id","id")
);--> statement-breakpoint
CREATE TABLE "devices" (
	"crew_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"version" integer DEFAULT 0 NOT NULL,
	"field_versions" jsonb DEFAULT '{}'::jsonb NOT NULL,
	"job_id" uuid NOT NULL,
	"name" text NOT NULL,
	"kind" text NOT NULL,
	"antenna_dbi" double precision,
	CONSTRAINT "devices_crew_id_id_pk" PRIMARY KEY("crew_id","id"),
	CONSTRAINT "devices_of_job" UNIQUE("crew_id","job_id","id")
);--> statement-breakpoint
CREATE TABLE "setups" (
	"crew_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"version" integer DEFAULT 0 NOT NULL,
	"field_versions" jsonb DEFAULT '{}'::jsonb NOT NULL,
	"job_id" uuid NOT NULL,
	"name" text,
	"device_id" uuid,
	"sim_id" uuid,
	"link" text NOT NULL,
	"antenna" text NOT NULL,
	"design_id" uuid,
	"booster" text NOT NULL,
	"band_lock" text,
	"mark" text,
	CONSTRAINT "setups_crew_id_id_pk" PRIMARY KEY("crew_id","id"),
	CONSTRAINT "setups_of_job" UNIQUE("crew_id","job_id","id")
);--> statement-breakpoint
CREATE TABLE "sims" (
	"crew_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"version" integer DEFAULT 0 NOT NULL,
	"field_versions" jsonb DEFAULT '{}'::jsonb NOT NULL,
	"job_id" uuid NOT NULL,
	"name" text NOT NULL,
	"carrier" text,
	"plan" text,
	"cap_down_mbps" double precision,
	"cap_up_mbps" double precision,
	"allowance_gb" double precision,
	CONSTRAINT "sims_crew_id_id_pk" PRIMARY KEY("crew_id","id"),
	CONSTRAINT "sims_of_job" UNIQUE("crew_id","job_id","id")
);--> statement-breakpoint
ALTER TABLE "readings" ADD COLUMN "setup_id" uuid;--> statement-breakpoint
ALTER TABLE "readings" ADD COLUMN "capture" uuid;--> statement-breakpoint
ALTER TABLE "readings" ADD COLUMN "carrier_role" text DEFAULT 'anchor' NOT NULL;--> statement-breakpoint
ALTER TABLE "speed_runs" ADD COLUMN "setup_id" uuid;--> statement-breakpoint
ALTER TABLE "sweeps" ADD COLUMN "setup_id" uuid;--> statement-breakpoint
ALTER TABLE "sweeps" ADD COLUMN "dwell_s" double precision;--> statement-breakpoint
ALTER TABLE "sweeps" ADD COLUMN "struck_deg" jsonb;--> statement-breakpoint
ALTER TABLE "calls" ADD CONSTRAINT "calls_crew_id_job_id_jobs_crew_id_id_fk" FOREIGN KEY ("crew_id","job_id") REFERENCES "public"."jobs"("crew_id","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "calls" ADD CONSTRAINT "ref:calls.spotId" FOREIGN KEY ("crew_id","job_id","spot_id") REFERENCES "public"."spots"("crew_id","job_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "calls" ADD CONSTRAINT "ref:calls.stopId" FOREIGN KEY ("crew_id","job_id","stop_id") REFERENCES "public"."stops"("crew_id","job_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "calls" ADD CONSTRAINT "ref:calls.setupId" FOREIGN KEY ("crew_id","job_id","setup_id") REFERENCES "public"."setups"("crew_id","job_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "calls" ADD CONSTRAINT "ref:calls.replacesId" FOREIGN KEY ("crew_id","job_id","replaces_id") REFERENCES "public"."calls"("crew_id","job_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "devices" ADD CONSTRAINT "devices_crew_id_job_id_jobs_crew_id_id_fk" FOREIGN KEY ("crew_id","job_id") REFERENCES "public"."jobs"("crew_id","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "setups" ADD CONSTRAINT "setups_crew_id_job_id_jobs_crew_id_id_fk" FOREIGN KEY ("crew_id","job_id") REFERENCES "public"."jobs"("crew_id","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "setups" ADD CONSTRAINT "ref:setups.deviceId" FOREIGN KEY ("crew_id","job_id","device_id") REFERENCES "public"."devices"("crew_id","job_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "setups" ADD CONSTRAINT "ref:setups.simId" FOREIGN KEY ("crew_id","job_id","sim_id") REFERENCES "public"."sims"("crew_id","job_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "sims" ADD CONSTRAINT "sims_crew_id_job_id_jobs_crew_id_id_fk" FOREIGN KEY ("crew_id","job_id") REFERENCES "public"."jobs"("crew_id","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "readings" ADD CONSTRAINT "ref:readings.setupId" FOREIGN KEY ("crew_id","job_id","setup_id") REFERENCES "public"."setups"("crew_id","job_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "speed_runs" ADD CONSTRAINT "ref:speedRuns.setupId" FOREIGN KEY ("crew_id","job_id","setup_id") REFERENCES "public"."setups"("crew_id","job_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "sweeps" ADD CONSTRAINT "ref:sweeps.setupId" FOREIGN KEY ("crew_id","job_id","setup_id") REFERENCES "public"."setups"("crew_id","job_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "checks" ADD COLUMN "stop_id" uuid;--> statement-breakpoint
ALTER TABLE "checks" ADD COLUMN "about" text;--> statement-breakpoint
ALTER TABLE "checks" ADD CONSTRAINT "ref:checks.stopId" FOREIGN KEY ("crew_id","job_id","stop_id") REFERENCES "public"."stops"("crew_id","job_id","id") ON DELETE SET NULL ("stop_id");--> statement-breakpoint
ALTER TABLE "setups" ADD CONSTRAINT "ref:setups.designId" FOREIGN KEY ("crew_id","job_id","design_id") REFERENCES "public"."designs"("crew_id","job_id","id") ON DELETE SET NULL ("design_id");--> statement-breakpoint
-- What speeds were tested with was not said: with what the level was read there last, else what such a test was made with.
CREATE TEMPORARY TABLE tested ON COMMIT DROP AS
SELECT t."crew_id", t."id", t."job_id", t."phase", coalesce(
  (SELECT r."device" FROM "readings" r WHERE r."crew_id" = t."crew_id" AND r."job_id" = t."job_id" AND r."phase" = t."phase"
    AND r."spot_id" = t."spot_id" ORDER BY r."taken_at_utc" DESC LIMIT 1),
  (SELECT r."device" FROM "readings" r WHERE r."crew_id" = t."crew_id" AND r."job_id" = t."job_id" AND r."phase" = t."phase"
    ORDER BY r."taken_at_utc" DESC LIMIT 1),
  CASE t."phase" WHEN 'after' THEN 'router' ELSE 'phone' END) AS device
FROM "speed_runs" t;--> statement-breakpoint
CREATE TEMPORARY TABLE used ON COMMIT DROP AS
SELECT "crew_id", "job_id", "phase", "device" FROM "readings" UNION SELECT "crew_id", "job_id", "phase", device FROM tested;--> statement-breakpoint
-- The rows that stood in each reading's own fields have ids made of the job's, as the program makes them.
INSERT INTO "devices" ("crew_id", "id", "version", "job_id", "name", "kind")
SELECT DISTINCT u."crew_id", overlay(u."job_id"::text placing CASE u."device" WHEN 'phone' THEN 'de000001' ELSE 'de000002' END from 1 for 8)::uuid, j."sequence", u."job_id",
  CASE u."device" WHEN 'phone' THEN 'Phone' ELSE 'Router' END, CASE u."device" WHEN 'phone' THEN 'phone' ELSE 'router' END
FROM used u JOIN "jobs" j ON j."crew_id" = u."crew_id" AND j."id" = u."job_id";--> statement-breakpoint
INSERT INTO "sims" ("crew_id", "id", "version", "job_id", "name", "carrier", "plan", "cap_down_mbps", "cap_up_mbps")
SELECT "crew_id", overlay("id"::text placing '51000001' from 1 for 8)::uuid, "sequence", "id", coalesce("carrier" || ' SIM', 'SIM'), "carrier", "sims", "plan_cap_mbps", "plan_cap_mbps"
FROM "jobs";--> statement-breakpoint
INSERT INTO "setups" ("crew_id", "id", "version", "job_id", "device_id", "sim_id", "link", "antenna", "design_id", "booster", "mark")
SELECT u."crew_id", overlay(u."job_id"::text placing '5e0000' || CASE u."phase" WHEN 'before' THEN '1' ELSE '2' END || CASE u."device" WHEN 'phone' THEN '1' WHEN 'router' THEN '2' ELSE '3' END from 1 for 8)::uuid, j."sequence", u."job_id", overlay(u."job_id"::text placing CASE u."device" WHEN 'phone' THEN 'de000001' ELSE 'de000002' END from 1 for 8)::uuid,
  overlay(u."job_id"::text placing '51000001' from 1 for 8)::uuid, 'device', CASE u."device" WHEN 'outside antenna' THEN 'outside' ELSE 'built in' END,
  CASE u."device" WHEN 'outside antenna' THEN j."design_id" END, 'none', u."phase"
FROM used u JOIN "jobs" j ON j."crew_id" = u."crew_id" AND j."id" = u."job_id";--> statement-breakpoint
UPDATE "readings" SET "setup_id" = overlay("job_id"::text placing '5e0000' || CASE "phase" WHEN 'before' THEN '1' ELSE '2' END || CASE "device" WHEN 'phone' THEN '1' WHEN 'router' THEN '2' ELSE '3' END from 1 for 8)::uuid;--> statement-breakpoint
UPDATE "speed_runs" r SET "setup_id" = overlay(t."job_id"::text placing '5e0000' || CASE t."phase" WHEN 'before' THEN '1' ELSE '2' END || CASE t.device WHEN 'phone' THEN '1' WHEN 'router' THEN '2' ELSE '3' END from 1 for 8)::uuid FROM tested t WHERE t."crew_id" = r."crew_id" AND t."id" = r."id";--> statement-breakpoint
ALTER TABLE "jobs" DROP COLUMN "plan_cap_mbps";--> statement-breakpoint
ALTER TABLE "jobs" DROP COLUMN "sims";--> statement-breakpoint
ALTER TABLE "readings" DROP COLUMN "phase";--> statement-breakpoint
ALTER TABLE "readings" DROP COLUMN "device";--> statement-breakpoint
ALTER TABLE "speed_runs" DROP COLUMN "phase";
