CREATE TABLE "fixtures" (
	"crew_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"version" integer DEFAULT 0 NOT NULL,
	"field_versions" jsonb DEFAULT '{}'::jsonb NOT NULL,
	"job_id" uuid NOT NULL,
	"kind" text NOT NULL,
	"name" text NOT NULL,
	"east_m" double precision NOT NULL,
	"north_m" double precision NOT NULL,
	"up_m" double precision NOT NULL,
	"width_m" double precision,
	"height_m" double precision,
	"azimuth_deg" double precision,
	"tilt_deg" double precision,
	"half_field_deg" double precision,
	CONSTRAINT "fixtures_crew_id_id_pk" PRIMARY KEY("crew_id","id"),
	CONSTRAINT "fixtures_of_job" UNIQUE("crew_id","job_id","id")
);
--> statement-breakpoint
CREATE TABLE "photos" (
	"crew_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"version" integer DEFAULT 0 NOT NULL,
	"field_versions" jsonb DEFAULT '{}'::jsonb NOT NULL,
	"job_id" uuid NOT NULL,
	"stop_id" uuid,
	"caption" text,
	"taken_at_utc" timestamp with time zone NOT NULL,
	"width_px" integer NOT NULL,
	"height_px" integer NOT NULL,
	"east_m" double precision,
	"north_m" double precision,
	"up_m" double precision,
	"bearing_deg" double precision,
	"spot_id" uuid,
	"node_id" uuid,
	CONSTRAINT "photos_crew_id_id_pk" PRIMARY KEY("crew_id","id"),
	CONSTRAINT "photos_of_job" UNIQUE("crew_id","job_id","id")
);
--> statement-breakpoint
ALTER TABLE "speed_runs" ADD COLUMN "via" text;--> statement-breakpoint
ALTER TABLE "speed_runs" ADD COLUMN "doubted" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "fixtures" ADD CONSTRAINT "fixtures_crew_id_job_id_jobs_crew_id_id_fk" FOREIGN KEY ("crew_id","job_id") REFERENCES "public"."jobs"("crew_id","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "photos" ADD CONSTRAINT "photos_crew_id_job_id_jobs_crew_id_id_fk" FOREIGN KEY ("crew_id","job_id") REFERENCES "public"."jobs"("crew_id","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "photos" ADD CONSTRAINT "ref:photos.stopId" FOREIGN KEY ("crew_id","job_id","stop_id") REFERENCES "public"."stops"("crew_id","job_id","id") ON DELETE SET NULL ("stop_id");--> statement-breakpoint
ALTER TABLE "photos" ADD CONSTRAINT "ref:photos.spotId" FOREIGN KEY ("crew_id","job_id","spot_id") REFERENCES "public"."spots"("crew_id","job_id","id") ON DELETE SET NULL ("spot_id");--> statement-breakpoint
ALTER TABLE "photos" ADD CONSTRAINT "ref:photos.nodeId" FOREIGN KEY ("crew_id","job_id","node_id") REFERENCES "public"."nodes"("crew_id","job_id","id") ON DELETE SET NULL ("node_id");
