CREATE TABLE "zones" (
	"crew_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"version" integer DEFAULT 0 NOT NULL,
	"field_versions" jsonb DEFAULT '{}'::jsonb NOT NULL,
	"job_id" uuid NOT NULL,
	"name" text NOT NULL,
	"from_level" smallint NOT NULL,
	"to_level" smallint NOT NULL,
	"along_from_m" double precision NOT NULL,
	"along_to_m" double precision NOT NULL,
	"across_from_m" double precision NOT NULL,
	"across_to_m" double precision NOT NULL,
	"use" text,
	CONSTRAINT "zones_crew_id_id_pk" PRIMARY KEY("crew_id","id"),
	CONSTRAINT "zones_of_job" UNIQUE("crew_id","job_id","id"),
	CONSTRAINT "zones_use_word" CHECK ("zones"."use" in ('home', 'office', 'shop', 'store', 'hall', 'ward'))
);
--> statement-breakpoint
ALTER TABLE "spots" DROP CONSTRAINT "spots_use_word";--> statement-breakpoint
ALTER TABLE "floors" ADD COLUMN "use" text;--> statement-breakpoint
ALTER TABLE "zones" ADD CONSTRAINT "zones_crew_id_job_id_jobs_crew_id_id_fk" FOREIGN KEY ("crew_id","job_id") REFERENCES "public"."jobs"("crew_id","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "floors" ADD CONSTRAINT "floors_use_word" CHECK ("floors"."use" in ('home', 'office', 'shop', 'store', 'hall', 'ward'));--> statement-breakpoint
ALTER TABLE "spots" ADD CONSTRAINT "spots_use_word" CHECK ("spots"."use" in ('home', 'office', 'shop', 'store', 'hall', 'ward'));