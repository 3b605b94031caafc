ALTER TABLE "designs" ADD COLUMN "way_in_id" uuid;--> statement-breakpoint
ALTER TABLE "fixtures" ADD COLUMN "entry" text;--> statement-breakpoint
ALTER TABLE "fixtures" ADD COLUMN "behind" text;--> statement-breakpoint
ALTER TABLE "fixtures" ADD COLUMN "behind_what" text;--> statement-breakpoint
ALTER TABLE "fixtures" ADD COLUMN "open_mm" double precision;--> statement-breakpoint
ALTER TABLE "fixtures" ADD COLUMN "wall_mm" double precision;--> statement-breakpoint
ALTER TABLE "fixtures" ADD COLUMN "electrode" text;--> statement-breakpoint
ALTER TABLE "fixtures" ADD COLUMN "bonded" text;--> statement-breakpoint
ALTER TABLE "fixtures" ADD COLUMN "conductor" text;--> statement-breakpoint
ALTER TABLE "fixtures" ADD COLUMN "corners" jsonb;--> statement-breakpoint
ALTER TABLE "nodes" ADD COLUMN "fixing" jsonb;--> statement-breakpoint
ALTER TABLE "nodes" ADD COLUMN "feed" jsonb;--> statement-breakpoint
ALTER TABLE "runs" ADD COLUMN "pieces" jsonb;--> statement-breakpoint
ALTER TABLE "sites" ADD COLUMN "gust_ms" double precision;--> statement-breakpoint
ALTER TABLE "designs" ADD CONSTRAINT "ref:designs.wayInId" FOREIGN KEY ("crew_id","job_id","way_in_id") REFERENCES "public"."fixtures"("crew_id","job_id","id") ON DELETE SET NULL ("way_in_id");
