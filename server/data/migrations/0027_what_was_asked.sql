ALTER TABLE "jobs" ADD COLUMN "complaint" text;--> statement-breakpoint
ALTER TABLE "jobs" ADD COLUMN "changed_lately" text;--> statement-breakpoint
ALTER TABLE "jobs" ADD COLUMN "drill_where" text;--> statement-breakpoint
ALTER TABLE "jobs" ADD COLUMN "outage_min" double precision;--> statement-breakpoint
ALTER TABLE "jobs" ADD CONSTRAINT "jobs_complaint_word" CHECK ("jobs"."complaint" in ('Wi-Fi', 'cellular', 'both'));