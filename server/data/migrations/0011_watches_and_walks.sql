CREATE TABLE "watches" (
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
	"kind" text NOT NULL,
	"seconds" double precision NOT NULL,
	"drops" integer NOT NULL,
	"longest_s" double precision NOT NULL,
	"lost_s" double precision NOT NULL,
	"switch_s" double precision,
	"back_s" double precision,
	"broke" text,
	CONSTRAINT "watches_crew_id_id_pk" PRIMARY KEY("crew_id","id"),
	CONSTRAINT "watches_of_job" UNIQUE("crew_id","job_id","id")
);
--> statement-breakpoint
ALTER TABLE "designs" ADD COLUMN "aimed_tilt_deg" double precision;--> statement-breakpoint
ALTER TABLE "jobs" ADD COLUMN "agreed_drops" double precision;--> statement-breakpoint
ALTER TABLE "setups" ADD COLUMN "power" text;--> statement-breakpoint
ALTER TABLE "spots" ADD COLUMN "station" text;--> statement-breakpoint
ALTER TABLE "spots" ADD COLUMN "note" text;--> statement-breakpoint
ALTER TABLE "steps" ADD COLUMN "tilt_deg" double precision;--> statement-breakpoint
ALTER TABLE "sweeps" ADD COLUMN "axis" text DEFAULT 'heading' NOT NULL;--> statement-breakpoint
ALTER TABLE "sweeps" ADD COLUMN "slow" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "watches" ADD CONSTRAINT "watches_crew_id_job_id_jobs_crew_id_id_fk" FOREIGN KEY ("crew_id","job_id") REFERENCES "public"."jobs"("crew_id","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "watches" ADD CONSTRAINT "ref:watches.spotId" FOREIGN KEY ("crew_id","job_id","spot_id") REFERENCES "public"."spots"("crew_id","job_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "watches" ADD CONSTRAINT "ref:watches.stopId" FOREIGN KEY ("crew_id","job_id","stop_id") REFERENCES "public"."stops"("crew_id","job_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "watches" ADD CONSTRAINT "ref:watches.setupId" FOREIGN KEY ("crew_id","job_id","setup_id") REFERENCES "public"."setups"("crew_id","job_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "watches" ADD CONSTRAINT "ref:watches.replacesId" FOREIGN KEY ("crew_id","job_id","replaces_id") REFERENCES "public"."watches"("crew_id","job_id","id") ON DELETE no action ON UPDATE no action;