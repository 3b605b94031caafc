ALTER TABLE "jobs" ADD COLUMN "busy_hours" jsonb;--> statement-breakpoint
ALTER TABLE "setups" ADD COLUMN "own_antennas" text;--> statement-breakpoint
ALTER TABLE "setups" ADD COLUMN "place" text;--> statement-breakpoint
ALTER TABLE "setups" ADD COLUMN "antenna_up_m" double precision;--> statement-breakpoint
ALTER TABLE "setups" ADD COLUMN "antenna_deg" double precision;