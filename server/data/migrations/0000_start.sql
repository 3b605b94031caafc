CREATE EXTENSION IF NOT EXISTS cube;--> statement-breakpoint
CREATE TABLE "applied_changes" (
	"crew_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"job_id" uuid NOT NULL,
	"sequence" integer NOT NULL,
	"table_name" text NOT NULL,
	"row_id" uuid NOT NULL,
	"op" text NOT NULL,
	"fields" jsonb NOT NULL,
	"outcome" jsonb,
	"member_id" uuid,
	"device" uuid,
	"at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "applied_changes_crew_id_id_pk" PRIMARY KEY("crew_id","id")
);
--> statement-breakpoint
CREATE TABLE "cells" (
	"crew_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"version" integer DEFAULT 0 NOT NULL,
	"field_versions" jsonb DEFAULT '{}'::jsonb NOT NULL,
	"job_id" uuid,
	"mast_id" uuid NOT NULL,
	"technology" text NOT NULL,
	"band" text NOT NULL,
	"cell_id" text,
	"azimuth_deg" double precision,
	"beamwidth_deg" double precision,
	"power_dbm" double precision,
	CONSTRAINT "cells_crew_id_id_pk" PRIMARY KEY("crew_id","id")
);
--> statement-breakpoint
CREATE TABLE "checks" (
	"crew_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"version" integer DEFAULT 0 NOT NULL,
	"field_versions" jsonb DEFAULT '{}'::jsonb NOT NULL,
	"job_id" uuid NOT NULL,
	"kind" text NOT NULL,
	"key" text NOT NULL,
	"done" boolean NOT NULL,
	"reason" text,
	"by" text,
	"at_utc" timestamp with time zone,
	CONSTRAINT "checks_crew_id_id_pk" PRIMARY KEY("crew_id","id")
);
--> statement-breakpoint
CREATE TABLE "crews" (
	"id" uuid PRIMARY KEY NOT NULL,
	"name" text NOT NULL,
	"carriers" jsonb DEFAULT '[]'::jsonb NOT NULL,
	"demo" boolean DEFAULT false NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "designs" (
	"crew_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"version" integer DEFAULT 0 NOT NULL,
	"field_versions" jsonb DEFAULT '{}'::jsonb NOT NULL,
	"job_id" uuid NOT NULL,
	"name" text NOT NULL,
	"approach" text NOT NULL,
	"mast_id" uuid,
	"band" text,
	"bandwidth_mhz" double precision,
	"margin_db" double precision DEFAULT 15 NOT NULL,
	"carriers_in_band" smallint,
	"obstruction_db" double precision DEFAULT 0 NOT NULL,
	"aimed_deg" double precision,
	"aimed_at_utc" timestamp with time zone,
	CONSTRAINT "designs_crew_id_id_pk" PRIMARY KEY("crew_id","id")
);
--> statement-breakpoint
CREATE TABLE "handovers" (
	"crew_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"job_id" uuid NOT NULL,
	"engine" text NOT NULL,
	"document" jsonb NOT NULL,
	"result" jsonb NOT NULL,
	"made_at" timestamp with time zone DEFAULT now() NOT NULL,
	"made_by" text NOT NULL,
	CONSTRAINT "handovers_crew_id_id_pk" PRIMARY KEY("crew_id","id")
);
--> statement-breakpoint
CREATE TABLE "jobs" (
	"crew_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"version" integer DEFAULT 0 NOT NULL,
	"field_versions" jsonb DEFAULT '{}'::jsonb NOT NULL,
	"sequence" integer DEFAULT 0 NOT NULL,
	"name" text NOT NULL,
	"kind" text DEFAULT 'home' NOT NULL,
	"customer_name" text,
	"customer_contact" text,
	"customer_address" text,
	"agreed_down_mbps" double precision,
	"agreed_up_mbps" double precision,
	"agreed_calls" boolean DEFAULT true NOT NULL,
	"carrier" text,
	"plan_cap_mbps" double precision,
	"sims" text,
	"today" text,
	"may_drill" text DEFAULT 'ask' NOT NULL,
	"notes" text,
	"baseline_spot_id" uuid,
	"design_id" uuid,
	"rules" text DEFAULT 'generic' NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"changed_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "jobs_crew_id_id_pk" PRIMARY KEY("crew_id","id")
);
--> statement-breakpoint
CREATE TABLE "mast_sets" (
	"crew_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"name" text NOT NULL,
	"rows" integer NOT NULL,
	"kept" integer NOT NULL,
	"imported_at" timestamp with time zone DEFAULT now() NOT NULL,
	"imported_by" text,
	CONSTRAINT "mast_sets_crew_id_id_pk" PRIMARY KEY("crew_id","id")
);
--> statement-breakpoint
CREATE TABLE "masts" (
	"crew_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"version" integer DEFAULT 0 NOT NULL,
	"field_versions" jsonb DEFAULT '{}'::jsonb NOT NULL,
	"job_id" uuid,
	"set_id" uuid,
	"name" text NOT NULL,
	"lat_deg" double precision NOT NULL,
	"lon_deg" double precision NOT NULL,
	"height_m" double precision,
	"ground_m" double precision,
	"carrier" text NOT NULL,
	CONSTRAINT "masts_crew_id_id_pk" PRIMARY KEY("crew_id","id"),
	CONSTRAINT "masts_lat" CHECK ("masts"."lat_deg" between -90 and 90),
	CONSTRAINT "masts_lon" CHECK ("masts"."lon_deg" between -180 and 180)
);
--> statement-breakpoint
CREATE TABLE "members" (
	"crew_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"name" text NOT NULL,
	"email" text NOT NULL,
	"role" text NOT NULL,
	"password_hash" text,
	"active" boolean DEFAULT true NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "members_crew_id_id_pk" PRIMARY KEY("crew_id","id"),
	CONSTRAINT "members_email" UNIQUE("email"),
	CONSTRAINT "members_role" CHECK ("members"."role" in ('lead', 'installer', 'viewer'))
);
--> statement-breakpoint
CREATE TABLE "nodes" (
	"crew_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"version" integer DEFAULT 0 NOT NULL,
	"field_versions" jsonb DEFAULT '{}'::jsonb NOT NULL,
	"job_id" uuid NOT NULL,
	"design_id" uuid NOT NULL,
	"role" text NOT NULL,
	"part_id" text NOT NULL,
	"east_m" double precision NOT NULL,
	"north_m" double precision NOT NULL,
	"up_m" double precision NOT NULL,
	"azimuth_deg" double precision,
	"tilt_deg" double precision DEFAULT 0 NOT NULL,
	"gain_db" double precision,
	CONSTRAINT "nodes_crew_id_id_pk" PRIMARY KEY("crew_id","id")
);
--> statement-breakpoint
CREATE TABLE "parts" (
	"crew_id" uuid NOT NULL,
	"id" text NOT NULL,
	"kind" text NOT NULL,
	"name" text NOT NULL,
	"data" jsonb NOT NULL,
	CONSTRAINT "parts_crew_id_id_pk" PRIMARY KEY("crew_id","id")
);
--> statement-breakpoint
CREATE TABLE "readings" (
	"crew_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"version" integer DEFAULT 0 NOT NULL,
	"field_versions" jsonb DEFAULT '{}'::jsonb NOT NULL,
	"job_id" uuid NOT NULL,
	"taken_at_utc" timestamp with time zone NOT NULL,
	"replaces_id" uuid,
	"withdrawn" boolean DEFAULT false NOT NULL,
	"phase" text NOT NULL,
	"spot_id" uuid NOT NULL,
	"technology" text NOT NULL,
	"band" text,
	"channel" integer,
	"bandwidth_mhz" double precision,
	"cell_id" text,
	"rsrp_dbm" double precision,
	"rsrq_db" double precision,
	"sinr_db" double precision,
	"device" text NOT NULL,
	CONSTRAINT "readings_crew_id_id_pk" PRIMARY KEY("crew_id","id"),
	CONSTRAINT "readings_rsrp" CHECK ("readings"."rsrp_dbm" between -160 and -20)
);
--> statement-breakpoint
CREATE TABLE "runs" (
	"crew_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"version" integer DEFAULT 0 NOT NULL,
	"field_versions" jsonb DEFAULT '{}'::jsonb NOT NULL,
	"job_id" uuid NOT NULL,
	"design_id" uuid NOT NULL,
	"from_node_id" uuid NOT NULL,
	"to_node_id" uuid NOT NULL,
	"part_id" text NOT NULL,
	"length_m" double precision NOT NULL,
	"measured" boolean DEFAULT false NOT NULL,
	"spare_m" double precision,
	CONSTRAINT "runs_crew_id_id_pk" PRIMARY KEY("crew_id","id"),
	CONSTRAINT "runs_length" CHECK ("runs"."length_m" >= 0)
);
--> statement-breakpoint
CREATE TABLE "sessions" (
	"crew_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"member_id" uuid NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"expires_at" timestamp with time zone NOT NULL,
	CONSTRAINT "sessions_crew_id_id_pk" PRIMARY KEY("crew_id","id")
);
--> statement-breakpoint
CREATE TABLE "sign_in_attempts" (
	"id" bigint PRIMARY KEY GENERATED ALWAYS AS IDENTITY (sequence name "sign_in_attempts_id_seq" INCREMENT BY 1 MINVALUE 1 MAXVALUE 9223372036854775807 START WITH 1 CACHE 1),
	"email" text NOT NULL,
	"address" text NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "sites" (
	"crew_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"version" integer DEFAULT 0 NOT NULL,
	"field_versions" jsonb DEFAULT '{}'::jsonb NOT NULL,
	"job_id" uuid NOT NULL,
	"lat_deg" double precision,
	"lon_deg" double precision,
	"ground_m" double precision,
	"zone" text DEFAULT 'UTC' NOT NULL,
	"axis_deg" double precision DEFAULT 90 NOT NULL,
	"length_m" double precision NOT NULL,
	"depth_m" double precision NOT NULL,
	"storeys" smallint NOT NULL,
	"storey_height_m" double precision NOT NULL,
	"roof_rise_m" double precision NOT NULL,
	CONSTRAINT "sites_crew_id_id_pk" PRIMARY KEY("crew_id","id"),
	CONSTRAINT "sites_lat" CHECK ("sites"."lat_deg" between -90 and 90),
	CONSTRAINT "sites_lon" CHECK ("sites"."lon_deg" between -180 and 180)
);
--> statement-breakpoint
CREATE TABLE "speed_runs" (
	"crew_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"version" integer DEFAULT 0 NOT NULL,
	"field_versions" jsonb DEFAULT '{}'::jsonb NOT NULL,
	"job_id" uuid NOT NULL,
	"taken_at_utc" timestamp with time zone NOT NULL,
	"replaces_id" uuid,
	"withdrawn" boolean DEFAULT false NOT NULL,
	"phase" text NOT NULL,
	"spot_id" uuid NOT NULL,
	"down_mbps" double precision,
	"up_mbps" double precision,
	"ping_ms" double precision,
	"would_not_load" boolean DEFAULT false NOT NULL,
	CONSTRAINT "speed_runs_crew_id_id_pk" PRIMARY KEY("crew_id","id"),
	CONSTRAINT "speed_runs_down" CHECK ("speed_runs"."down_mbps" >= 0)
);
--> statement-breakpoint
CREATE TABLE "spots" (
	"crew_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"version" integer DEFAULT 0 NOT NULL,
	"field_versions" jsonb DEFAULT '{}'::jsonb NOT NULL,
	"job_id" uuid NOT NULL,
	"name" text NOT NULL,
	"east_m" double precision NOT NULL,
	"north_m" double precision NOT NULL,
	"up_m" double precision NOT NULL,
	"indoors" boolean NOT NULL,
	"needed" boolean DEFAULT false NOT NULL,
	CONSTRAINT "spots_crew_id_id_pk" PRIMARY KEY("crew_id","id")
);
--> statement-breakpoint
CREATE TABLE "steps" (
	"crew_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"version" integer DEFAULT 0 NOT NULL,
	"field_versions" jsonb DEFAULT '{}'::jsonb NOT NULL,
	"job_id" uuid NOT NULL,
	"taken_at_utc" timestamp with time zone NOT NULL,
	"replaces_id" uuid,
	"withdrawn" boolean DEFAULT false NOT NULL,
	"sweep_id" uuid NOT NULL,
	"pass" smallint NOT NULL,
	"heading_deg" double precision NOT NULL,
	"value" double precision NOT NULL,
	CONSTRAINT "steps_crew_id_id_pk" PRIMARY KEY("crew_id","id")
);
--> statement-breakpoint
CREATE TABLE "sweeps" (
	"crew_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"version" integer DEFAULT 0 NOT NULL,
	"field_versions" jsonb DEFAULT '{}'::jsonb NOT NULL,
	"job_id" uuid NOT NULL,
	"design_id" uuid NOT NULL,
	"started_at_utc" timestamp with time zone NOT NULL,
	"quantity" text NOT NULL,
	"reference" text NOT NULL,
	"step_deg" double precision,
	CONSTRAINT "sweeps_crew_id_id_pk" PRIMARY KEY("crew_id","id")
);
--> statement-breakpoint
CREATE TABLE "terrain_blocks" (
	"crew_id" uuid NOT NULL,
	"key" text NOT NULL,
	"side" smallint NOT NULL,
	"tile" text NOT NULL,
	"heights" "bytea" NOT NULL,
	CONSTRAINT "terrain_blocks_crew_id_key_pk" PRIMARY KEY("crew_id","key")
);
--> statement-breakpoint
CREATE TABLE "terrain_tiles" (
	"crew_id" uuid NOT NULL,
	"name" text NOT NULL,
	"side" integer NOT NULL,
	"voids" integer NOT NULL,
	"imported_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "terrain_tiles_crew_id_name_pk" PRIMARY KEY("crew_id","name")
);
--> statement-breakpoint
CREATE TABLE "tokens" (
	"hash" text PRIMARY KEY NOT NULL,
	"crew_id" uuid,
	"member_id" uuid,
	"kind" text NOT NULL,
	"role" text,
	"expires_at" timestamp with time zone NOT NULL,
	"used_at" timestamp with time zone
);
--> statement-breakpoint
ALTER TABLE "applied_changes" ADD CONSTRAINT "applied_changes_crew_id_job_id_jobs_crew_id_id_fk" FOREIGN KEY ("crew_id","job_id") REFERENCES "public"."jobs"("crew_id","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "cells" ADD CONSTRAINT "cells_crew_id_mast_id_masts_crew_id_id_fk" FOREIGN KEY ("crew_id","mast_id") REFERENCES "public"."masts"("crew_id","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "checks" ADD CONSTRAINT "checks_crew_id_job_id_jobs_crew_id_id_fk" FOREIGN KEY ("crew_id","job_id") REFERENCES "public"."jobs"("crew_id","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "designs" ADD CONSTRAINT "designs_crew_id_job_id_jobs_crew_id_id_fk" FOREIGN KEY ("crew_id","job_id") REFERENCES "public"."jobs"("crew_id","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "handovers" ADD CONSTRAINT "handovers_crew_id_job_id_jobs_crew_id_id_fk" FOREIGN KEY ("crew_id","job_id") REFERENCES "public"."jobs"("crew_id","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "jobs" ADD CONSTRAINT "jobs_crew_id_crews_id_fk" FOREIGN KEY ("crew_id") REFERENCES "public"."crews"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "mast_sets" ADD CONSTRAINT "mast_sets_crew_id_crews_id_fk" FOREIGN KEY ("crew_id") REFERENCES "public"."crews"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "masts" ADD CONSTRAINT "masts_crew_id_crews_id_fk" FOREIGN KEY ("crew_id") REFERENCES "public"."crews"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "masts" ADD CONSTRAINT "masts_crew_id_job_id_jobs_crew_id_id_fk" FOREIGN KEY ("crew_id","job_id") REFERENCES "public"."jobs"("crew_id","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "masts" ADD CONSTRAINT "masts_crew_id_set_id_mast_sets_crew_id_id_fk" FOREIGN KEY ("crew_id","set_id") REFERENCES "public"."mast_sets"("crew_id","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "members" ADD CONSTRAINT "members_crew_id_crews_id_fk" FOREIGN KEY ("crew_id") REFERENCES "public"."crews"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "nodes" ADD CONSTRAINT "nodes_crew_id_job_id_jobs_crew_id_id_fk" FOREIGN KEY ("crew_id","job_id") REFERENCES "public"."jobs"("crew_id","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "nodes" ADD CONSTRAINT "nodes_crew_id_design_id_designs_crew_id_id_fk" FOREIGN KEY ("crew_id","design_id") REFERENCES "public"."designs"("crew_id","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "parts" ADD CONSTRAINT "parts_crew_id_crews_id_fk" FOREIGN KEY ("crew_id") REFERENCES "public"."crews"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "readings" ADD CONSTRAINT "readings_crew_id_job_id_jobs_crew_id_id_fk" FOREIGN KEY ("crew_id","job_id") REFERENCES "public"."jobs"("crew_id","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "readings" ADD CONSTRAINT "readings_crew_id_spot_id_spots_crew_id_id_fk" FOREIGN KEY ("crew_id","spot_id") REFERENCES "public"."spots"("crew_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "runs" ADD CONSTRAINT "runs_crew_id_job_id_jobs_crew_id_id_fk" FOREIGN KEY ("crew_id","job_id") REFERENCES "public"."jobs"("crew_id","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "runs" ADD CONSTRAINT "runs_crew_id_design_id_designs_crew_id_id_fk" FOREIGN KEY ("crew_id","design_id") REFERENCES "public"."designs"("crew_id","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "sessions" ADD CONSTRAINT "sessions_crew_id_member_id_members_crew_id_id_fk" FOREIGN KEY ("crew_id","member_id") REFERENCES "public"."members"("crew_id","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "sites" ADD CONSTRAINT "sites_crew_id_job_id_jobs_crew_id_id_fk" FOREIGN KEY ("crew_id","job_id") REFERENCES "public"."jobs"("crew_id","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "speed_runs" ADD CONSTRAINT "speed_runs_crew_id_job_id_jobs_crew_id_id_fk" FOREIGN KEY ("crew_id","job_id") REFERENCES "public"."jobs"("crew_id","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "speed_runs" ADD CONSTRAINT "speed_runs_crew_id_spot_id_spots_crew_id_id_fk" FOREIGN KEY ("crew_id","spot_id") REFERENCES "public"."spots"("crew_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "spots" ADD CONSTRAINT "spots_crew_id_job_id_jobs_crew_id_id_fk" FOREIGN KEY ("crew_id","job_id") REFERENCES "public"."jobs"("crew_id","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "steps" ADD CONSTRAINT "steps_crew_id_job_id_jobs_crew_id_id_fk" FOREIGN KEY ("crew_id","job_id") REFERENCES "public"."jobs"("crew_id","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "steps" ADD CONSTRAINT "steps_crew_id_sweep_id_sweeps_crew_id_id_fk" FOREIGN KEY ("crew_id","sweep_id") REFERENCES "public"."sweeps"("crew_id","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "sweeps" ADD CONSTRAINT "sweeps_crew_id_job_id_jobs_crew_id_id_fk" FOREIGN KEY ("crew_id","job_id") REFERENCES "public"."jobs"("crew_id","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "sweeps" ADD CONSTRAINT "sweeps_crew_id_design_id_designs_crew_id_id_fk" FOREIGN KEY ("crew_id","design_id") REFERENCES "public"."designs"("crew_id","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "terrain_blocks" ADD CONSTRAINT "terrain_blocks_crew_id_crews_id_fk" FOREIGN KEY ("crew_id") REFERENCES "public"."crews"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "terrain_tiles" ADD CONSTRAINT "terrain_tiles_crew_id_crews_id_fk" FOREIGN KEY ("crew_id") REFERENCES "public"."crews"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "applied_changes_feed" ON "applied_changes" USING btree ("crew_id","job_id","sequence");--> statement-breakpoint
CREATE INDEX "cells_mast" ON "cells" USING btree ("crew_id","mast_id");--> statement-breakpoint
CREATE INDEX "checks_job" ON "checks" USING btree ("crew_id","job_id");--> statement-breakpoint
CREATE INDEX "designs_job" ON "designs" USING btree ("crew_id","job_id");--> statement-breakpoint
CREATE INDEX "masts_job" ON "masts" USING btree ("crew_id","job_id");--> statement-breakpoint
CREATE INDEX "masts_place" ON "masts" USING gist (cube(array[cos(radians("lat_deg")) * cos(radians("lon_deg")), cos(radians("lat_deg")) * sin(radians("lon_deg")), sin(radians("lat_deg"))]));--> statement-breakpoint
CREATE INDEX "nodes_job" ON "nodes" USING btree ("crew_id","job_id");--> statement-breakpoint
CREATE INDEX "readings_job" ON "readings" USING btree ("crew_id","job_id");--> statement-breakpoint
CREATE INDEX "runs_job" ON "runs" USING btree ("crew_id","job_id");--> statement-breakpoint
CREATE INDEX "sign_in_attempts_email" ON "sign_in_attempts" USING btree ("email","at");--> statement-breakpoint
CREATE INDEX "sign_in_attempts_address" ON "sign_in_attempts" USING btree ("address","at");--> statement-breakpoint
CREATE INDEX "sites_job" ON "sites" USING btree ("crew_id","job_id");--> statement-breakpoint
CREATE INDEX "speed_runs_job" ON "speed_runs" USING btree ("crew_id","job_id");--> statement-breakpoint
CREATE INDEX "spots_job" ON "spots" USING btree ("crew_id","job_id");--> statement-breakpoint
CREATE INDEX "steps_job" ON "steps" USING btree ("crew_id","job_id");--> statement-breakpoint
CREATE INDEX "sweeps_job" ON "sweeps" USING btree ("crew_id","job_id");