CREATE TABLE "labels" (
	"crew_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"version" integer DEFAULT 0 NOT NULL,
	"field_versions" jsonb DEFAULT '{}'::jsonb NOT NULL,
	"job_id" uuid NOT NULL,
	"node_id" uuid NOT NULL,
	"serial" text,
	"imei" text,
	"mac" text,
	CONSTRAINT "labels_crew_id_id_pk" PRIMARY KEY("crew_id","id"),
	CONSTRAINT "labels_of_job" UNIQUE("crew_id","job_id","id")
);
--> statement-breakpoint
CREATE TABLE "own_steps" (
	"crew_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"version" integer DEFAULT 0 NOT NULL,
	"field_versions" jsonb DEFAULT '{}'::jsonb NOT NULL,
	"job_id" uuid NOT NULL,
	"words" text NOT NULL,
	"stand" text NOT NULL,
	"minutes" double precision NOT NULL,
	"after_key" text,
	CONSTRAINT "own_steps_crew_id_id_pk" PRIMARY KEY("crew_id","id"),
	CONSTRAINT "own_steps_of_job" UNIQUE("crew_id","job_id","id")
);
--> statement-breakpoint
CREATE TABLE "prices" (
	"crew_id" uuid NOT NULL,
	"key" text NOT NULL,
	"minor" bigint,
	"supplier" text,
	"lead_days" smallint,
	"in_van" double precision DEFAULT 0 NOT NULL,
	CONSTRAINT "prices_crew_id_key_pk" PRIMARY KEY("crew_id","key"),
	CONSTRAINT "prices_minor" CHECK ("prices"."minor" >= 0)
);
--> statement-breakpoint
CREATE TABLE "supplies" (
	"crew_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"version" integer DEFAULT 0 NOT NULL,
	"field_versions" jsonb DEFAULT '{}'::jsonb NOT NULL,
	"job_id" uuid NOT NULL,
	"key" text NOT NULL,
	"name" text,
	"quantity" double precision,
	"state" text NOT NULL,
	"supplier" text,
	"due_on" date,
	CONSTRAINT "supplies_crew_id_id_pk" PRIMARY KEY("crew_id","id"),
	CONSTRAINT "supplies_of_job" UNIQUE("crew_id","job_id","id")
);
--> statement-breakpoint
CREATE TABLE "visits" (
	"crew_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"version" integer DEFAULT 0 NOT NULL,
	"field_versions" jsonb DEFAULT '{}'::jsonb NOT NULL,
	"job_id" uuid NOT NULL,
	"on_day" date NOT NULL,
	"starts_at" text NOT NULL,
	"hours" double precision NOT NULL,
	"team" text,
	"people" smallint NOT NULL,
	"weather" text NOT NULL,
	"state" text NOT NULL,
	"note" text,
	CONSTRAINT "visits_crew_id_id_pk" PRIMARY KEY("crew_id","id"),
	CONSTRAINT "visits_of_job" UNIQUE("crew_id","job_id","id")
);
--> statement-breakpoint
ALTER TABLE "crews" ADD COLUMN "money" jsonb DEFAULT '{}'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "jobs" ADD COLUMN "method_id" uuid;--> statement-breakpoint
ALTER TABLE "jobs" ADD COLUMN "quote_margin_percent" double precision;--> statement-breakpoint
ALTER TABLE "jobs" ADD COLUMN "quote_hours" double precision;--> statement-breakpoint
ALTER TABLE "photos" ADD COLUMN "step_key" text;--> statement-breakpoint
ALTER TABLE "labels" ADD CONSTRAINT "labels_crew_id_job_id_jobs_crew_id_id_fk" FOREIGN KEY ("crew_id","job_id") REFERENCES "public"."jobs"("crew_id","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "labels" ADD CONSTRAINT "ref:labels.nodeId" FOREIGN KEY ("crew_id","job_id","node_id") REFERENCES "public"."nodes"("crew_id","job_id","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "own_steps" ADD CONSTRAINT "own_steps_crew_id_job_id_jobs_crew_id_id_fk" FOREIGN KEY ("crew_id","job_id") REFERENCES "public"."jobs"("crew_id","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "prices" ADD CONSTRAINT "prices_crew_id_crews_id_fk" FOREIGN KEY ("crew_id") REFERENCES "public"."crews"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "supplies" ADD CONSTRAINT "supplies_crew_id_job_id_jobs_crew_id_id_fk" FOREIGN KEY ("crew_id","job_id") REFERENCES "public"."jobs"("crew_id","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "visits" ADD CONSTRAINT "visits_crew_id_job_id_jobs_crew_id_id_fk" FOREIGN KEY ("crew_id","job_id") REFERENCES "public"."jobs"("crew_id","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "visits_day" ON "visits" USING btree ("crew_id","on_day");--> statement-breakpoint
CREATE INDEX "jobs_method" ON "jobs" USING btree ("crew_id","method_id");