CREATE TABLE "appliances" (
	"crew_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"version" integer DEFAULT 0 NOT NULL,
	"field_versions" jsonb DEFAULT '{}'::jsonb NOT NULL,
	"job_id" uuid NOT NULL,
	"network_id" uuid NOT NULL,
	"name" text NOT NULL,
	"back_at_utc" timestamp with time zone,
	"tunnel" boolean NOT NULL,
	"usage" text,
	"hours_day" double precision,
	"mb_hour" double precision,
	CONSTRAINT "appliances_crew_id_id_pk" PRIMARY KEY("crew_id","id"),
	CONSTRAINT "appliances_of_job" UNIQUE("crew_id","job_id","id"),
	CONSTRAINT "appliances_usage_word" CHECK ("appliances"."usage" in ('films', 'calls with picture', 'calls', 'work', 'camera', 'music', 'updates', 'little'))
);
--> statement-breakpoint
CREATE TABLE "connections" (
	"crew_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"version" integer DEFAULT 0 NOT NULL,
	"field_versions" jsonb DEFAULT '{}'::jsonb NOT NULL,
	"job_id" uuid NOT NULL,
	"name" text NOT NULL,
	"kind" text NOT NULL,
	"rank" double precision NOT NULL,
	"node_id" uuid,
	"sim_id" uuid,
	"use" text NOT NULL,
	"carries" text NOT NULL,
	"throttle_down_mbps" double precision,
	"throttle_up_mbps" double precision,
	"device_mbps" double precision,
	"reserve_mbps" double precision,
	"check_s" double precision,
	"check_places" smallint,
	"check_misses" smallint,
	"allowance_gb" double precision,
	"address" text,
	"mast_id" uuid,
	"socket_id" uuid,
	"entry_id" uuid,
	"state" text NOT NULL,
	"state_at_utc" timestamp with time zone,
	"powered_at_utc" timestamp with time zone,
	CONSTRAINT "connections_crew_id_id_pk" PRIMARY KEY("crew_id","id"),
	CONSTRAINT "connections_of_job" UNIQUE("crew_id","job_id","id"),
	CONSTRAINT "connections_kind_word" CHECK ("connections"."kind" in ('cellular', 'cable line', 'satellite', 'site Wi-Fi', 'tether')),
	CONSTRAINT "connections_use_word" CHECK ("connections"."use" in ('in order', 'bonded', 'by hand')),
	CONSTRAINT "connections_carries_word" CHECK ("connections"."carries" in ('everything', 'no tunnels', 'calls and mail', 'only its check')),
	CONSTRAINT "connections_address_word" CHECK ("connections"."address" in ('own', 'shared', 'behind a router')),
	CONSTRAINT "connections_state_word" CHECK ("connections"."state" in ('not in yet', 'off', 'no SIM', 'PIN', 'searching', 'denied', 'no data', 'no internet', 'slow', 'up'))
);
--> statement-breakpoint
CREATE TABLE "customer_pages" (
	"crew_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"hash" text NOT NULL,
	"job_id" uuid NOT NULL,
	"handover_id" uuid NOT NULL,
	"made_by" text NOT NULL,
	"made_at" timestamp with time zone DEFAULT now() NOT NULL,
	"ends_at" timestamp with time zone NOT NULL,
	"withdrawn_at" timestamp with time zone,
	"openings" integer DEFAULT 0 NOT NULL,
	"opened_at" timestamp with time zone,
	CONSTRAINT "customer_pages_crew_id_id_pk" PRIMARY KEY("crew_id","id"),
	CONSTRAINT "customer_pages_hash_unique" UNIQUE("hash")
);
--> statement-breakpoint
CREATE TABLE "failovers" (
	"crew_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"version" integer DEFAULT 0 NOT NULL,
	"field_versions" jsonb DEFAULT '{}'::jsonb NOT NULL,
	"job_id" uuid NOT NULL,
	"connection_id" uuid NOT NULL,
	"how" text NOT NULL,
	"pulled_at_utc" timestamp with time zone NOT NULL,
	"answered_at_utc" timestamp with time zone,
	"other_id" uuid,
	"back_in_at_utc" timestamp with time zone,
	"back_at_utc" timestamp with time zone,
	"broke" text,
	"address" text,
	"withdrawn" boolean NOT NULL,
	CONSTRAINT "failovers_crew_id_id_pk" PRIMARY KEY("crew_id","id"),
	CONSTRAINT "failovers_of_job" UNIQUE("crew_id","job_id","id"),
	CONSTRAINT "failovers_how_word" CHECK ("failovers"."how" in ('line pulled', 'line without internet', 'SIM out', 'box without power', 'mains off', 'antenna lead off')),
	CONSTRAINT "failovers_address_word" CHECK ("failovers"."address" in ('same', 'changed'))
);
--> statement-breakpoint
CREATE TABLE "networks" (
	"crew_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"version" integer DEFAULT 0 NOT NULL,
	"field_versions" jsonb DEFAULT '{}'::jsonb NOT NULL,
	"job_id" uuid NOT NULL,
	"name" text NOT NULL,
	"kind" text NOT NULL,
	"named" text NOT NULL,
	"radio" text,
	"apart" text,
	"device_mbps" double precision,
	"password" text,
	"password_by" text,
	"password_to" text,
	"password_on" date,
	CONSTRAINT "networks_crew_id_id_pk" PRIMARY KEY("crew_id","id"),
	CONSTRAINT "networks_of_job" UNIQUE("crew_id","job_id","id"),
	CONSTRAINT "networks_kind_word" CHECK ("networks"."kind" in ('house', 'guests', 'management')),
	CONSTRAINT "networks_named_word" CHECK ("networks"."named" in ('old name kept', 'new name')),
	CONSTRAINT "networks_radio_word" CHECK ("networks"."radio" in ('2.4 GHz', '5 GHz', 'both', 'wire')),
	CONSTRAINT "networks_apart_word" CHECK ("networks"."apart" in ('apart', 'sees the others')),
	CONSTRAINT "networks_password_word" CHECK ("networks"."password" in ('as delivered', 'changed'))
);
--> statement-breakpoint
CREATE TABLE "signatures" (
	"crew_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"version" integer DEFAULT 0 NOT NULL,
	"field_versions" jsonb DEFAULT '{}'::jsonb NOT NULL,
	"job_id" uuid NOT NULL,
	"what" text NOT NULL,
	"said" text NOT NULL,
	"name" text NOT NULL,
	"at_utc" timestamp with time zone NOT NULL,
	"remarks" text,
	"open" text,
	"strokes" jsonb NOT NULL,
	CONSTRAINT "signatures_crew_id_id_pk" PRIMARY KEY("crew_id","id"),
	CONSTRAINT "signatures_of_job" UNIQUE("crew_id","job_id","id"),
	CONSTRAINT "signatures_what_word" CHECK ("signatures"."what" in ('handover', 'access')),
	CONSTRAINT "signatures_said_word" CHECK ("signatures"."said" in ('accepted', 'accepted with remarks', 'refused'))
);
--> statement-breakpoint
CREATE TABLE "usage_days" (
	"crew_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"version" integer DEFAULT 0 NOT NULL,
	"field_versions" jsonb DEFAULT '{}'::jsonb NOT NULL,
	"job_id" uuid NOT NULL,
	"connection_id" uuid NOT NULL,
	"on_day" date NOT NULL,
	"mb" double precision NOT NULL,
	"hours" jsonb,
	CONSTRAINT "usage_days_crew_id_id_pk" PRIMARY KEY("crew_id","id"),
	CONSTRAINT "usage_days_of_job" UNIQUE("crew_id","job_id","id")
);
--> statement-breakpoint
ALTER TABLE "crews" ADD COLUMN "phone" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "labels" ADD COLUMN "firmware_needed" text;--> statement-breakpoint
ALTER TABLE "labels" ADD COLUMN "firmware_found" text;--> statement-breakpoint
ALTER TABLE "labels" ADD COLUMN "wps" text;--> statement-breakpoint
ALTER TABLE "labels" ADD COLUMN "admin_from_outside" text;--> statement-breakpoint
ALTER TABLE "sims" ADD COLUMN "iccid" text;--> statement-breakpoint
ALTER TABLE "sims" ADD COLUMN "size" text;--> statement-breakpoint
ALTER TABLE "sims" ADD COLUMN "reset_day" smallint;--> statement-breakpoint
ALTER TABLE "sims" ADD COLUMN "used_up" text;--> statement-breakpoint
ALTER TABLE "sims" ADD COLUMN "slow_mbps" double precision;--> statement-breakpoint
ALTER TABLE "appliances" ADD CONSTRAINT "appliances_crew_id_job_id_jobs_crew_id_id_fk" FOREIGN KEY ("crew_id","job_id") REFERENCES "public"."jobs"("crew_id","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "appliances" ADD CONSTRAINT "ref:appliances.networkId" FOREIGN KEY ("crew_id","job_id","network_id") REFERENCES "public"."networks"("crew_id","job_id","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "connections" ADD CONSTRAINT "connections_crew_id_job_id_jobs_crew_id_id_fk" FOREIGN KEY ("crew_id","job_id") REFERENCES "public"."jobs"("crew_id","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "customer_pages" ADD CONSTRAINT "customer_pages_crew_id_job_id_jobs_crew_id_id_fk" FOREIGN KEY ("crew_id","job_id") REFERENCES "public"."jobs"("crew_id","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "customer_pages" ADD CONSTRAINT "customer_pages_crew_id_handover_id_handovers_crew_id_id_fk" FOREIGN KEY ("crew_id","handover_id") REFERENCES "public"."handovers"("crew_id","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "failovers" ADD CONSTRAINT "failovers_crew_id_job_id_jobs_crew_id_id_fk" FOREIGN KEY ("crew_id","job_id") REFERENCES "public"."jobs"("crew_id","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "failovers" ADD CONSTRAINT "ref:failovers.connectionId" FOREIGN KEY ("crew_id","job_id","connection_id") REFERENCES "public"."connections"("crew_id","job_id","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "networks" ADD CONSTRAINT "networks_crew_id_job_id_jobs_crew_id_id_fk" FOREIGN KEY ("crew_id","job_id") REFERENCES "public"."jobs"("crew_id","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "signatures" ADD CONSTRAINT "signatures_crew_id_job_id_jobs_crew_id_id_fk" FOREIGN KEY ("crew_id","job_id") REFERENCES "public"."jobs"("crew_id","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "usage_days" ADD CONSTRAINT "usage_days_crew_id_job_id_jobs_crew_id_id_fk" FOREIGN KEY ("crew_id","job_id") REFERENCES "public"."jobs"("crew_id","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "usage_days" ADD CONSTRAINT "ref:usageDays.connectionId" FOREIGN KEY ("crew_id","job_id","connection_id") REFERENCES "public"."connections"("crew_id","job_id","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "customer_pages_job" ON "customer_pages" USING btree ("crew_id","job_id");--> statement-breakpoint
ALTER TABLE "labels" ADD CONSTRAINT "labels_wps_word" CHECK ("labels"."wps" in ('off', 'on'));--> statement-breakpoint
ALTER TABLE "labels" ADD CONSTRAINT "labels_admin_from_outside_word" CHECK ("labels"."admin_from_outside" in ('off', 'on'));--> statement-breakpoint
ALTER TABLE "sims" ADD CONSTRAINT "sims_size_word" CHECK ("sims"."size" in ('mini', 'micro', 'nano', 'eSIM'));--> statement-breakpoint
ALTER TABLE "sims" ADD CONSTRAINT "sims_used_up_word" CHECK ("sims"."used_up" in ('stops', 'slows', 'costs'));--> statement-breakpoint
ALTER TABLE "connections" ADD CONSTRAINT "ref:connections.nodeId" FOREIGN KEY ("crew_id","job_id","node_id") REFERENCES "public"."nodes"("crew_id","job_id","id") ON DELETE SET NULL ("node_id");--> statement-breakpoint
ALTER TABLE "connections" ADD CONSTRAINT "ref:connections.simId" FOREIGN KEY ("crew_id","job_id","sim_id") REFERENCES "public"."sims"("crew_id","job_id","id") ON DELETE SET NULL ("sim_id");--> statement-breakpoint
ALTER TABLE "connections" ADD CONSTRAINT "ref:connections.socketId" FOREIGN KEY ("crew_id","job_id","socket_id") REFERENCES "public"."fixtures"("crew_id","job_id","id") ON DELETE SET NULL ("socket_id");--> statement-breakpoint
ALTER TABLE "connections" ADD CONSTRAINT "ref:connections.entryId" FOREIGN KEY ("crew_id","job_id","entry_id") REFERENCES "public"."fixtures"("crew_id","job_id","id") ON DELETE SET NULL ("entry_id");--> statement-breakpoint
ALTER TABLE "failovers" ADD CONSTRAINT "ref:failovers.otherId" FOREIGN KEY ("crew_id","job_id","other_id") REFERENCES "public"."connections"("crew_id","job_id","id") ON DELETE SET NULL ("other_id");--> statement-breakpoint
CREATE TRIGGER "connections_mast" BEFORE INSERT OR UPDATE OF "mast_id" ON "connections" FOR EACH ROW WHEN (NEW."mast_id" IS NOT NULL) EXECUTE FUNCTION "mast_of_job_or_crew"('connections');--> statement-breakpoint
CREATE OR REPLACE FUNCTION "designs_let_go_of_mast"() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
	UPDATE "designs" SET "mast_id" = NULL WHERE "crew_id" = OLD."crew_id" AND "job_id" = OLD."job_id" AND "mast_id" = OLD."id";
	UPDATE "connections" SET "mast_id" = NULL WHERE "crew_id" = OLD."crew_id" AND "job_id" = OLD."job_id" AND "mast_id" = OLD."id";
	RETURN OLD;
END $$;
