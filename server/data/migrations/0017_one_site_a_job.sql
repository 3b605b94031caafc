ALTER TABLE "nodes" ADD COLUMN "source_id" uuid;--> statement-breakpoint
ALTER TABLE "nodes" ADD CONSTRAINT "ref:nodes.sourceId" FOREIGN KEY ("crew_id","job_id","source_id") REFERENCES "public"."fixtures"("crew_id","job_id","id") ON DELETE SET NULL ("source_id");--> statement-breakpoint
-- A job has one site: of several the one written first stays, and one that lost its own gets what is usual of its kind.
DELETE FROM "sites" s USING "sites" o WHERE o."crew_id" = s."crew_id" AND o."job_id" = s."job_id" AND o."id" < s."id";--> statement-breakpoint
INSERT INTO "sites" ("crew_id", "id", "job_id", "version", "field_versions", "zone", "axis_deg", "length_m", "depth_m", "storeys", "storey_height_m", "roof_rise_m",
  "wall_material", "pane_material", "pane_percent", "floor_material", "roof_material")
SELECT j."crew_id", ('517e0001' || substr(j."id"::text, 9))::uuid, j."id", j."sequence", '{}'::jsonb, 'UTC',
  CASE WHEN j."kind" IN ('vehicle', 'boat') THEN 0 ELSE 90 END,
  CASE j."kind" WHEN 'building' THEN 28 WHEN 'vehicle' THEN 7 ELSE 12 END,
  CASE j."kind" WHEN 'building' THEN 16 WHEN 'vehicle' THEN 2.2 WHEN 'boat' THEN 3.8 ELSE 8 END,
  CASE j."kind" WHEN 'home' THEN 2 WHEN 'building' THEN 3 ELSE 1 END,
  CASE j."kind" WHEN 'home' THEN 2.7 WHEN 'building' THEN 3.4 WHEN 'vehicle' THEN 2.9 ELSE 1.8 END,
  CASE j."kind" WHEN 'home' THEN 3 WHEN 'boat' THEN 13 ELSE 0 END,
  CASE j."kind" WHEN 'home' THEN 'brick' WHEN 'building' THEN 'block' WHEN 'vehicle' THEN 'sheet metal' ELSE 'plastic' END,
  CASE j."kind" WHEN 'building' THEN 'coated glass' ELSE 'glass' END,
  CASE j."kind" WHEN 'home' THEN 15 WHEN 'building' THEN 35 WHEN 'vehicle' THEN 0 ELSE 10 END,
  CASE j."kind" WHEN 'home' THEN 'timber floor' WHEN 'building' THEN 'reinforced concrete' WHEN 'vehicle' THEN 'timber' ELSE 'plastic' END,
  CASE j."kind" WHEN 'home' THEN 'tiles' WHEN 'building' THEN 'reinforced concrete' WHEN 'vehicle' THEN 'sheet metal' ELSE 'plastic' END
FROM "jobs" j WHERE NOT EXISTS (SELECT 1 FROM "sites" s WHERE s."crew_id" = j."crew_id" AND s."job_id" = j."id");--> statement-breakpoint
ALTER TABLE "sites" ADD CONSTRAINT "one_site_a_job" UNIQUE("crew_id","job_id");
