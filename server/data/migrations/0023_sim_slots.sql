CREATE TABLE "sim_slots" (
	"crew_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"version" integer DEFAULT 0 NOT NULL,
	"field_versions" jsonb DEFAULT '{}'::jsonb NOT NULL,
	"job_id" uuid NOT NULL,
	"node_id" uuid NOT NULL,
	"slot" smallint NOT NULL,
	"sim_id" uuid NOT NULL,
	CONSTRAINT "sim_slots_crew_id_id_pk" PRIMARY KEY("crew_id","id"),
	CONSTRAINT "sim_slots_of_job" UNIQUE("crew_id","job_id","id")
);
--> statement-breakpoint
ALTER TABLE "sim_slots" ADD CONSTRAINT "sim_slots_crew_id_job_id_jobs_crew_id_id_fk" FOREIGN KEY ("crew_id","job_id") REFERENCES "public"."jobs"("crew_id","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "sim_slots" ADD CONSTRAINT "ref:simSlots.nodeId" FOREIGN KEY ("crew_id","job_id","node_id") REFERENCES "public"."nodes"("crew_id","job_id","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "sim_slots" ADD CONSTRAINT "ref:simSlots.simId" FOREIGN KEY ("crew_id","job_id","sim_id") REFERENCES "public"."sims"("crew_id","job_id","id") ON DELETE cascade ON UPDATE no action;