ALTER TABLE "readings" ADD COLUMN "stop_id" uuid;--> statement-breakpoint
ALTER TABLE "speed_runs" ADD COLUMN "stop_id" uuid;--> statement-breakpoint
ALTER TABLE "sweeps" ADD COLUMN "stop_id" uuid;--> statement-breakpoint
ALTER TABLE "readings" ADD CONSTRAINT "readings_crew_id_stop_id_stops_crew_id_id_fk" FOREIGN KEY ("crew_id","stop_id") REFERENCES "public"."stops"("crew_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "speed_runs" ADD CONSTRAINT "speed_runs_crew_id_stop_id_stops_crew_id_id_fk" FOREIGN KEY ("crew_id","stop_id") REFERENCES "public"."stops"("crew_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "sweeps" ADD CONSTRAINT "sweeps_crew_id_stop_id_stops_crew_id_id_fk" FOREIGN KEY ("crew_id","stop_id") REFERENCES "public"."stops"("crew_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
UPDATE "readings" r SET "stop_id" = s."id" FROM "jobs" j JOIN "stops" s ON s."crew_id" = j."crew_id" AND s."id" = j."stop_id" WHERE j."crew_id" = r."crew_id" AND j."id" = r."job_id";--> statement-breakpoint
UPDATE "speed_runs" r SET "stop_id" = s."id" FROM "jobs" j JOIN "stops" s ON s."crew_id" = j."crew_id" AND s."id" = j."stop_id" WHERE j."crew_id" = r."crew_id" AND j."id" = r."job_id";--> statement-breakpoint
UPDATE "sweeps" r SET "stop_id" = s."id" FROM "jobs" j JOIN "stops" s ON s."crew_id" = j."crew_id" AND s."id" = j."stop_id" WHERE j."crew_id" = r."crew_id" AND j."id" = r."job_id";
