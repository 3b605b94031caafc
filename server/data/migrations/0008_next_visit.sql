DROP INDEX "jobs_changed";--> statement-breakpoint
ALTER TABLE "crews" ADD COLUMN "enough" jsonb DEFAULT '{}'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "jobs" ADD COLUMN "next_on" date;--> statement-breakpoint
ALTER TABLE "jobs" ADD COLUMN "queued" date GENERATED ALWAYS AS (case when state = 'keep' then date 'infinity' else coalesce(next_on, date '9999-12-31') end) STORED;--> statement-breakpoint
ALTER TABLE "sites" ADD COLUMN "mizzen_rise_m" double precision;--> statement-breakpoint
ALTER TABLE "speed_runs" ADD COLUMN "band" text;--> statement-breakpoint
ALTER TABLE "speed_runs" ADD COLUMN "cell_id" text;--> statement-breakpoint
ALTER TABLE "sweeps" ADD COLUMN "band" text;--> statement-breakpoint
ALTER TABLE "sweeps" ADD COLUMN "cell_id" text;--> statement-breakpoint
CREATE INDEX "jobs_queued" ON "jobs" USING btree ("crew_id","queued","changed_at" DESC NULLS FIRST,"id" DESC NULLS FIRST);