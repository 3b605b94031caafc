CREATE TABLE "floor_plans" (
	"crew_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"version" integer DEFAULT 0 NOT NULL,
	"field_versions" jsonb DEFAULT '{}'::jsonb NOT NULL,
	"job_id" uuid NOT NULL,
	"level" smallint NOT NULL,
	"name" text NOT NULL,
	"width_px" integer NOT NULL,
	"height_px" integer NOT NULL,
	"affine" jsonb,
	"opacity" double precision DEFAULT 0.6 NOT NULL,
	CONSTRAINT "floor_plans_crew_id_id_pk" PRIMARY KEY("crew_id","id"),
	CONSTRAINT "floor_plans_of_job" UNIQUE("crew_id","job_id","id")
);
--> statement-breakpoint
CREATE TABLE "isolations" (
	"crew_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"version" integer DEFAULT 0 NOT NULL,
	"field_versions" jsonb DEFAULT '{}'::jsonb NOT NULL,
	"job_id" uuid NOT NULL,
	"design_id" uuid NOT NULL,
	"donor_id" uuid NOT NULL,
	"server_id" uuid NOT NULL,
	"maker_db" double precision,
	"measured_db" double precision,
	"in_force" text NOT NULL,
	"reason" text,
	CONSTRAINT "isolations_crew_id_id_pk" PRIMARY KEY("crew_id","id"),
	CONSTRAINT "isolations_of_job" UNIQUE("crew_id","job_id","id")
);
--> statement-breakpoint
ALTER TABLE "designs" ADD COLUMN "plugs" text DEFAULT 'factory' NOT NULL;--> statement-breakpoint
ALTER TABLE "designs" ADD COLUMN "reason" text;--> statement-breakpoint
ALTER TABLE "sims" ADD COLUMN "calls_over_wifi" text;--> statement-breakpoint
ALTER TABLE "spots" ADD COLUMN "people" double precision;--> statement-breakpoint
ALTER TABLE "spots" ADD COLUMN "hangs" text;--> statement-breakpoint
ALTER TABLE "floor_plans" ADD CONSTRAINT "floor_plans_crew_id_job_id_jobs_crew_id_id_fk" FOREIGN KEY ("crew_id","job_id") REFERENCES "public"."jobs"("crew_id","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "isolations" ADD CONSTRAINT "isolations_crew_id_job_id_jobs_crew_id_id_fk" FOREIGN KEY ("crew_id","job_id") REFERENCES "public"."jobs"("crew_id","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "isolations" ADD CONSTRAINT "ref:isolations.designId" FOREIGN KEY ("crew_id","job_id","design_id") REFERENCES "public"."designs"("crew_id","job_id","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "isolations" ADD CONSTRAINT "ref:isolations.donorId" FOREIGN KEY ("crew_id","job_id","donor_id") REFERENCES "public"."nodes"("crew_id","job_id","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "isolations" ADD CONSTRAINT "ref:isolations.serverId" FOREIGN KEY ("crew_id","job_id","server_id") REFERENCES "public"."nodes"("crew_id","job_id","id") ON DELETE cascade ON UPDATE no action;