CREATE TABLE "floors" (
	"crew_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"version" integer DEFAULT 0 NOT NULL,
	"field_versions" jsonb DEFAULT '{}'::jsonb NOT NULL,
	"job_id" uuid NOT NULL,
	"level" smallint NOT NULL,
	"name" text,
	"height_m" double precision,
	"material" text,
	CONSTRAINT "floors_crew_id_id_pk" PRIMARY KEY("crew_id","id"),
	CONSTRAINT "floors_of_job" UNIQUE("crew_id","job_id","id")
);--> statement-breakpoint
CREATE TABLE "sheets" (
	"crew_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"version" integer DEFAULT 0 NOT NULL,
	"field_versions" jsonb DEFAULT '{}'::jsonb NOT NULL,
	"job_id" uuid NOT NULL,
	"name" text NOT NULL,
	"east_m" double precision NOT NULL,
	"north_m" double precision NOT NULL,
	"up_m" double precision NOT NULL,
	"azimuth_deg" double precision NOT NULL,
	"tilt_deg" double precision NOT NULL,
	"width_m" double precision NOT NULL,
	"height_m" double precision NOT NULL,
	"material" text NOT NULL,
	"loss_db" double precision,
	CONSTRAINT "sheets_crew_id_id_pk" PRIMARY KEY("crew_id","id"),
	CONSTRAINT "sheets_of_job" UNIQUE("crew_id","job_id","id")
);--> statement-breakpoint
CREATE TABLE "walls" (
	"crew_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"version" integer DEFAULT 0 NOT NULL,
	"field_versions" jsonb DEFAULT '{}'::jsonb NOT NULL,
	"job_id" uuid NOT NULL,
	"level" smallint NOT NULL,
	"from_east_m" double precision NOT NULL,
	"from_north_m" double precision NOT NULL,
	"to_east_m" double precision NOT NULL,
	"to_north_m" double precision NOT NULL,
	"material" text NOT NULL,
	"loss_db" double precision,
	CONSTRAINT "walls_crew_id_id_pk" PRIMARY KEY("crew_id","id"),
	CONSTRAINT "walls_of_job" UNIQUE("crew_id","job_id","id")
);--> statement-breakpoint
ALTER TABLE "designs" ALTER COLUMN "margin_db" DROP DEFAULT;--> statement-breakpoint
ALTER TABLE "designs" ALTER COLUMN "margin_db" DROP NOT NULL;--> statement-breakpoint
ALTER TABLE "runs" ALTER COLUMN "part_id" DROP NOT NULL;--> statement-breakpoint
ALTER TABLE "jobs" ADD COLUMN "need_data_dbm" double precision;--> statement-breakpoint
ALTER TABLE "jobs" ADD COLUMN "need_calls_dbm" double precision;--> statement-breakpoint
ALTER TABLE "jobs" ADD COLUMN "rsrp_edges" jsonb;--> statement-breakpoint
ALTER TABLE "jobs" ADD COLUMN "sinr_edges" jsonb;--> statement-breakpoint
ALTER TABLE "nodes" ADD COLUMN "part" jsonb;--> statement-breakpoint
ALTER TABLE "nodes" ADD COLUMN "own" jsonb;--> statement-breakpoint
ALTER TABLE "runs" ADD COLUMN "from_port" text;--> statement-breakpoint
ALTER TABLE "runs" ADD COLUMN "to_port" text;--> statement-breakpoint
ALTER TABLE "runs" ADD COLUMN "part" jsonb;--> statement-breakpoint
ALTER TABLE "floors" ADD CONSTRAINT "floors_crew_id_job_id_jobs_crew_id_id_fk" FOREIGN KEY ("crew_id","job_id") REFERENCES "public"."jobs"("crew_id","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "sheets" ADD CONSTRAINT "sheets_crew_id_job_id_jobs_crew_id_id_fk" FOREIGN KEY ("crew_id","job_id") REFERENCES "public"."jobs"("crew_id","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "walls" ADD CONSTRAINT "walls_crew_id_job_id_jobs_crew_id_id_fk" FOREIGN KEY ("crew_id","job_id") REFERENCES "public"."jobs"("crew_id","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "sites" ADD COLUMN "wall_material" text;--> statement-breakpoint
ALTER TABLE "sites" ADD COLUMN "pane_material" text;--> statement-breakpoint
ALTER TABLE "sites" ADD COLUMN "pane_percent" double precision;--> statement-breakpoint
ALTER TABLE "sites" ADD COLUMN "floor_material" text;--> statement-breakpoint
ALTER TABLE "sites" ADD COLUMN "roof_material" text;--> statement-breakpoint
-- What a site is made of, by its kind.
UPDATE "sites" s SET
  "wall_material" = CASE j."kind" WHEN 'vehicle' THEN 'sheet metal' WHEN 'boat' THEN 'plastic' ELSE 'brick' END,
  "pane_material" = 'glass',
  "pane_percent" = CASE j."kind" WHEN 'vehicle' THEN 0 WHEN 'boat' THEN 10 ELSE 15 END,
  "floor_material" = CASE j."kind" WHEN 'vehicle' THEN 'timber' WHEN 'boat' THEN 'plastic' ELSE 'timber floor' END,
  "roof_material" = CASE j."kind" WHEN 'vehicle' THEN 'sheet metal' WHEN 'boat' THEN 'plastic' ELSE 'tiles' END
FROM "jobs" j WHERE j."crew_id" = s."crew_id" AND j."id" = s."job_id";--> statement-breakpoint
ALTER TABLE "sites" ALTER COLUMN "wall_material" SET NOT NULL;--> statement-breakpoint
ALTER TABLE "sites" ALTER COLUMN "pane_material" SET NOT NULL;--> statement-breakpoint
ALTER TABLE "sites" ALTER COLUMN "pane_percent" SET NOT NULL;--> statement-breakpoint
ALTER TABLE "sites" ALTER COLUMN "floor_material" SET NOT NULL;--> statement-breakpoint
ALTER TABLE "sites" ALTER COLUMN "roof_material" SET NOT NULL;--> statement-breakpoint
-- The margin that every design was made with: the amplifier's own says now.
UPDATE "designs" SET "margin_db" = NULL WHERE "margin_db" = 15;--> statement-breakpoint
-- Each part becomes a copy in its design, as it was shipped.
CREATE TEMPORARY TABLE shipped (id text PRIMARY KEY, part jsonb NOT NULL) ON COMMIT DROP;--> statement-breakpoint
INSERT INTO shipped (id, part) VALUES
  ('ant-lpda', '{"id":"ant-lpda","kind":"antenna","name":"Log-periodic beam, wide band","use":"outside","shape":"log-periodic","ranges":[{"lowMHz":617,"highMHz":960,"gainDbi":8,"beamwidthDeg":70,"verticalBeamwidthDeg":80},{"lowMHz":1700,"highMHz":2700,"gainDbi":10,"beamwidthDeg":55,"verticalBeamwidthDeg":60}],"frontToBackDb":18,"ports":[{"id":"1","role":"feed","connector":"N","gender":"socket","impedanceOhm":50}],"sizeM":0.45}'::jsonb),
  ('ant-panel-x', '{"id":"ant-panel-x","kind":"antenna","name":"Cross-polarised panel, two feeds","use":"outside","shape":"panel","ranges":[{"lowMHz":617,"highMHz":960,"gainDbi":7,"beamwidthDeg":75,"verticalBeamwidthDeg":70},{"lowMHz":1700,"highMHz":2700,"gainDbi":9,"beamwidthDeg":65,"verticalBeamwidthDeg":60},{"lowMHz":3300,"highMHz":3800,"gainDbi":9,"beamwidthDeg":60,"verticalBeamwidthDeg":55}],"frontToBackDb":16,"ports":[{"id":"1","role":"feed","connector":"N","gender":"socket","impedanceOhm":50},{"id":"2","role":"feed","connector":"N","gender":"socket","impedanceOhm":50}],"sizeM":0.3}'::jsonb),
  ('ant-yagi-low', '{"id":"ant-yagi-low","kind":"antenna","name":"Low-band Yagi, ten elements","use":"outside","shape":"Yagi","ranges":[{"lowMHz":790,"highMHz":960,"gainDbi":11.5,"beamwidthDeg":42,"verticalBeamwidthDeg":48}],"frontToBackDb":17,"ports":[{"id":"1","role":"feed","connector":"N","gender":"socket","impedanceOhm":50}],"sizeM":0.95}'::jsonb),
  ('ant-yagi-mid-x', '{"id":"ant-yagi-mid-x","kind":"antenna","name":"Mid-band beams, crossed pair","use":"outside","shape":"Yagi","ranges":[{"lowMHz":1700,"highMHz":2700,"gainDbi":13,"beamwidthDeg":34,"verticalBeamwidthDeg":38}],"frontToBackDb":19,"ports":[{"id":"1","role":"feed","connector":"N","gender":"socket","impedanceOhm":50},{"id":"2","role":"feed","connector":"N","gender":"socket","impedanceOhm":50}],"sizeM":0.7}'::jsonb),
  ('ant-omni', '{"id":"ant-omni","kind":"antenna","name":"Omni, wide band","use":"outside","shape":"omni","ranges":[{"lowMHz":617,"highMHz":960,"gainDbi":2.5,"beamwidthDeg":360,"verticalBeamwidthDeg":80},{"lowMHz":1700,"highMHz":3800,"gainDbi":4.5,"beamwidthDeg":360,"verticalBeamwidthDeg":50}],"frontToBackDb":15,"ports":[{"id":"1","role":"feed","connector":"N","gender":"socket","impedanceOhm":50}],"sizeM":0.6}'::jsonb),
  ('ant-omni-x', '{"id":"ant-omni-x","kind":"antenna","name":"Omni with two feeds","use":"outside","shape":"omni","ranges":[{"lowMHz":617,"highMHz":960,"gainDbi":1.5,"beamwidthDeg":360,"verticalBeamwidthDeg":80},{"lowMHz":1700,"highMHz":3800,"gainDbi":3.5,"beamwidthDeg":360,"verticalBeamwidthDeg":55}],"frontToBackDb":13,"ports":[{"id":"1","role":"feed","connector":"N","gender":"socket","impedanceOhm":50},{"id":"2","role":"feed","connector":"N","gender":"socket","impedanceOhm":50}],"sizeM":0.35}'::jsonb),
  ('ant-dome', '{"id":"ant-dome","kind":"antenna","name":"Ceiling dome","use":"inside","shape":"dome","ranges":[{"lowMHz":617,"highMHz":960,"gainDbi":1.5,"beamwidthDeg":180,"verticalBeamwidthDeg":180},{"lowMHz":1700,"highMHz":2700,"gainDbi":3.5,"beamwidthDeg":180,"verticalBeamwidthDeg":180}],"frontToBackDb":10,"ports":[{"id":"1","role":"feed","connector":"N","gender":"socket","impedanceOhm":50}],"sizeM":0.18}'::jsonb),
  ('ant-panel-in', '{"id":"ant-panel-in","kind":"antenna","name":"Inside wall panel","use":"inside","shape":"panel","ranges":[{"lowMHz":617,"highMHz":960,"gainDbi":5,"beamwidthDeg":85,"verticalBeamwidthDeg":75},{"lowMHz":1700,"highMHz":2700,"gainDbi":7,"beamwidthDeg":70,"verticalBeamwidthDeg":65}],"frontToBackDb":17,"ports":[{"id":"1","role":"feed","connector":"N","gender":"socket","impedanceOhm":50}],"sizeM":0.21}'::jsonb),
  ('ant-whip-in', '{"id":"ant-whip-in","kind":"antenna","name":"Inside desk whip","use":"inside","shape":"whip","ranges":[{"lowMHz":617,"highMHz":2700,"gainDbi":1,"beamwidthDeg":360,"verticalBeamwidthDeg":90}],"frontToBackDb":12,"ports":[{"id":"1","role":"feed","connector":"SMA","gender":"socket","impedanceOhm":50}],"sizeM":0.12}'::jsonb),
  ('line-195', '{"id":"line-195","kind":"line","name":"195-type, 50 Ω","constants":{"k1":1.168,"k2":0.0016},"impedanceOhm":50,"spreadPercent":5,"diameterMm":4.95,"bendMm":13,"stockM":[2,5,10],"ends":"N"}'::jsonb),
  ('line-240', '{"id":"line-240","kind":"line","name":"240-type, 50 Ω","constants":{"k1":0.794,"k2":0.0011},"impedanceOhm":50,"spreadPercent":5,"diameterMm":6.1,"bendMm":19,"stockM":[5,10,15],"ends":"N"}'::jsonb),
  ('line-400', '{"id":"line-400","kind":"line","name":"400-type, 50 Ω","constants":{"k1":0.401,"k2":0.00085},"impedanceOhm":50,"spreadPercent":4,"diameterMm":10.3,"bendMm":25,"stockM":[5,10,15,20,30],"ends":"N"}'::jsonb),
  ('line-600', '{"id":"line-600","kind":"line","name":"600-type, 50 Ω","constants":{"k1":0.248,"k2":0.00085},"impedanceOhm":50,"spreadPercent":4,"diameterMm":15,"bendMm":38,"stockM":[10,20,30,50],"ends":"N"}'::jsonb),
  ('line-rg6', '{"id":"line-rg6","kind":"line","name":"RG-6, 75 Ω","constants":{"k1":0.62,"k2":0.0022},"impedanceOhm":75,"spreadPercent":12,"diameterMm":6.9,"bendMm":35,"stockM":[5,10,15],"ends":"F"}'::jsonb),
  ('line-rg11', '{"id":"line-rg11","kind":"line","name":"RG-11, 75 Ω","constants":{"k1":0.4,"k2":0.0015},"impedanceOhm":75,"spreadPercent":12,"diameterMm":10.3,"bendMm":60,"stockM":[15,25,30],"ends":"F"}'::jsonb),
  ('rtr-2', '{"id":"rtr-2","kind":"router","name":"Cellular router, two antenna ports","bands":["B1","B3","B7","B8","B20","B28","B38","B40","B2","B4","B5","B12","B13","B17","B25","B26","B66","B71","B41"],"portLimitMbps":940,"noiseFigureDb":9,"ports":[{"id":"1","role":"cell","connector":"SMA","gender":"socket","impedanceOhm":50},{"id":"2","role":"cell","connector":"SMA","gender":"socket","impedanceOhm":50}]}'::jsonb),
  ('rtr-4', '{"id":"rtr-4","kind":"router","name":"Cellular router LTE and NR, four antenna ports","bands":["B1","B3","B7","B8","B20","B28","B38","B40","B42","B2","B4","B5","B12","B13","B14","B17","B25","B66","B71","B41","B26","n1","n3","n7","n20","n28","n78"],"portLimitMbps":940,"noiseFigureDb":9,"ports":[{"id":"1","role":"cell","connector":"SMA","gender":"socket","impedanceOhm":50},{"id":"2","role":"cell","connector":"SMA","gender":"socket","impedanceOhm":50},{"id":"3","role":"cell","connector":"SMA","gender":"socket","impedanceOhm":50},{"id":"4","role":"cell","connector":"SMA","gender":"socket","impedanceOhm":50}]}'::jsonb),
  ('rtr-mini', '{"id":"rtr-mini","kind":"router","name":"Pocket router, two small ports","bands":["B1","B3","B7","B8","B20","B28","B38","B40","B2","B4","B5","B12","B13","B17","B25","B26","B66","B71"],"portLimitMbps":95,"noiseFigureDb":9,"ports":[{"id":"1","role":"cell","connector":"TS9","gender":"socket","impedanceOhm":50},{"id":"2","role":"cell","connector":"TS9","gender":"socket","impedanceOhm":50}]}'::jsonb),
  ('amp-home', '{"id":"amp-home","kind":"amplifier","name":"Home booster, several bands, 62 dB","use":"fixed","bands":["B1","B3","B7","B8","B20"],"gainDb":62,"lowestGainDb":35,"noiseFigureDb":6,"outputDbm":12,"uplinkOutputDbm":22,"inputLimitDbm":-45,"shutDownDbm":-30,"ports":[{"id":"donor","role":"donor","connector":"N","gender":"socket","impedanceOhm":50},{"id":"server","role":"server","connector":"N","gender":"socket","impedanceOhm":50}]}'::jsonb),
  ('amp-single', '{"id":"amp-single","kind":"amplifier","name":"Single-band booster, 55 dB","use":"fixed","bands":["B20"],"gainDb":55,"lowestGainDb":30,"noiseFigureDb":6,"outputDbm":10,"uplinkOutputDbm":20,"inputLimitDbm":-48,"shutDownDbm":-33,"ports":[{"id":"donor","role":"donor","connector":"N","gender":"socket","impedanceOhm":50},{"id":"server","role":"server","connector":"N","gender":"socket","impedanceOhm":50}]}'::jsonb),
  ('amp-75', '{"id":"amp-75","kind":"amplifier","name":"Home booster with 75 Ω ports, 58 dB","use":"fixed","bands":["B1","B3","B8","B20","B28"],"gainDb":58,"lowestGainDb":38,"noiseFigureDb":7,"outputDbm":10,"uplinkOutputDbm":21,"inputLimitDbm":-45,"shutDownDbm":-30,"ports":[{"id":"donor","role":"donor","connector":"F","gender":"socket","impedanceOhm":75},{"id":"server","role":"server","connector":"F","gender":"socket","impedanceOhm":75}]}'::jsonb),
  ('arr-gas', '{"id":"arr-gas","kind":"arrestor","name":"Gas-tube arrestor, two N sockets","lossDb":0.2,"ports":[{"id":"in","role":"in","connector":"N","gender":"socket","impedanceOhm":50},{"id":"out","role":"out","connector":"N","gender":"socket","impedanceOhm":50}]}'::jsonb),
  ('pad-3', '{"id":"pad-3","kind":"pad","name":"Attenuator 3 dB","lossDb":3,"ports":[{"id":"in","role":"in","connector":"N","gender":"socket","impedanceOhm":50},{"id":"out","role":"out","connector":"N","gender":"plug","impedanceOhm":50}]}'::jsonb),
  ('pad-6', '{"id":"pad-6","kind":"pad","name":"Attenuator 6 dB","lossDb":6,"ports":[{"id":"in","role":"in","connector":"N","gender":"socket","impedanceOhm":50},{"id":"out","role":"out","connector":"N","gender":"plug","impedanceOhm":50}]}'::jsonb),
  ('pad-10', '{"id":"pad-10","kind":"pad","name":"Attenuator 10 dB","lossDb":10,"ports":[{"id":"in","role":"in","connector":"N","gender":"socket","impedanceOhm":50},{"id":"out","role":"out","connector":"N","gender":"plug","impedanceOhm":50}]}'::jsonb),
  ('adp-n-sma', '{"id":"adp-n-sma","kind":"adapter","name":"Jumper 0.3 m, N socket to SMA plug","lossDb":0.3,"ports":[{"id":"in","role":"in","connector":"N","gender":"socket","impedanceOhm":50},{"id":"out","role":"out","connector":"SMA","gender":"plug","impedanceOhm":50}]}'::jsonb),
  ('adp-n-ts9', '{"id":"adp-n-ts9","kind":"adapter","name":"Jumper 0.2 m, N socket to TS9 plug","lossDb":0.4,"ports":[{"id":"in","role":"in","connector":"N","gender":"socket","impedanceOhm":50},{"id":"out","role":"out","connector":"TS9","gender":"plug","impedanceOhm":50}]}'::jsonb);--> statement-breakpoint
UPDATE "nodes" n SET "part" = s.part FROM shipped s WHERE s.id = n."part_id";--> statement-breakpoint
UPDATE "runs" r SET "part" = s.part FROM shipped s WHERE s.id = r."part_id";--> statement-breakpoint
UPDATE "nodes" SET "own" = jsonb_build_object('gainDb', "gain_db", 'gainDbi', "gain_db") WHERE "gain_db" IS NOT NULL;--> statement-breakpoint
-- Cables lead from port to port.
UPDATE "runs" r SET
  "from_port" = CASE f."role" WHEN 'amplifier' THEN 'server' WHEN 'arrestor' THEN 'out' WHEN 'pad' THEN 'out' ELSE '1' END,
  "to_port" = CASE t."role" WHEN 'amplifier' THEN 'donor' WHEN 'arrestor' THEN 'in' WHEN 'pad' THEN 'in' ELSE '1' END
FROM "nodes" f, "nodes" t
WHERE f."crew_id" = r."crew_id" AND f."id" = r."from_node_id" AND t."crew_id" = r."crew_id" AND t."id" = r."to_node_id";--> statement-breakpoint
-- An antenna of two feeds into a router of two ports has two cables and two of all that is in them.
CREATE TEMPORARY TABLE two_feeds ON COMMIT DROP AS
SELECT DISTINCT a."crew_id", a."design_id" FROM "nodes" a
JOIN "nodes" b ON b."crew_id" = a."crew_id" AND b."design_id" = a."design_id" AND b."role" = 'router'
WHERE a."role" = 'outside' AND jsonb_array_length(a."part" -> 'ports') > 1 AND jsonb_array_length(b."part" -> 'ports') > 1;--> statement-breakpoint
CREATE TEMPORARY TABLE twins ON COMMIT DROP AS
SELECT n."crew_id", n."id" AS old_id, gen_random_uuid() AS new_id FROM "nodes" n
JOIN two_feeds d ON d."crew_id" = n."crew_id" AND d."design_id" = n."design_id" WHERE n."role" IN ('arrestor', 'pad');--> statement-breakpoint
INSERT INTO "nodes" ("crew_id", "id", "version", "job_id", "design_id", "role", "part_id", "part", "own", "east_m", "north_m", "up_m", "azimuth_deg", "tilt_deg")
SELECT n."crew_id", t.new_id, n."version", n."job_id", n."design_id", n."role", n."part_id", n."part", n."own", n."east_m", n."north_m" + 0.25, n."up_m", n."azimuth_deg", n."tilt_deg"
FROM "nodes" n JOIN twins t ON t."crew_id" = n."crew_id" AND t.old_id = n."id";--> statement-breakpoint
INSERT INTO "runs" ("crew_id", "id", "version", "job_id", "design_id", "from_node_id", "from_port", "to_node_id", "to_port", "part_id", "part", "length_m", "measured", "spare_m")
SELECT r."crew_id", gen_random_uuid(), r."version", r."job_id", r."design_id", coalesce(f.new_id, r."from_node_id"),
  CASE WHEN f.new_id IS NULL THEN '2' ELSE r."from_port" END, coalesce(t.new_id, r."to_node_id"),
  CASE WHEN t.new_id IS NULL THEN '2' ELSE r."to_port" END, r."part_id", r."part", r."length_m", r."measured", r."spare_m"
FROM "runs" r JOIN two_feeds d ON d."crew_id" = r."crew_id" AND d."design_id" = r."design_id"
LEFT JOIN twins f ON f."crew_id" = r."crew_id" AND f.old_id = r."from_node_id"
LEFT JOIN twins t ON t."crew_id" = r."crew_id" AND t.old_id = r."to_node_id";--> statement-breakpoint
-- A line with large plugs comes to a router's small sockets by a jumper, which was only told before.
CREATE TEMPORARY TABLE jumpers ON COMMIT DROP AS
SELECT r."crew_id", r."id" AS run_id, gen_random_uuid() AS new_id, s.id AS part_id, s.part, r."job_id", r."design_id", r."version",
  r."to_node_id" AS router_id, r."to_port" AS port, n."east_m", n."north_m", n."up_m",
  row_number() OVER (PARTITION BY r."crew_id", r."to_node_id" ORDER BY r."to_port") - 1 AS nth
FROM "runs" r JOIN "nodes" n ON n."crew_id" = r."crew_id" AND n."id" = r."to_node_id" AND n."role" = 'router'
JOIN shipped s ON s.id = CASE n."part" -> 'ports' -> 0 ->> 'connector' WHEN 'SMA' THEN 'adp-n-sma' WHEN 'TS9' THEN 'adp-n-ts9' END
WHERE r."part" ->> 'ends' = 'N';--> statement-breakpoint
INSERT INTO "nodes" ("crew_id", "id", "version", "job_id", "design_id", "role", "part_id", "part", "east_m", "north_m", "up_m", "tilt_deg")
SELECT "crew_id", new_id, "version", "job_id", "design_id", 'adapter', part_id, part, "east_m" - 0.25, "north_m" + 0.1 * nth, "up_m", 0 FROM jumpers;--> statement-breakpoint
UPDATE "runs" r SET "to_node_id" = j.new_id, "to_port" = 'in' FROM jumpers j WHERE j."crew_id" = r."crew_id" AND j.run_id = r."id";--> statement-breakpoint
INSERT INTO "runs" ("crew_id", "id", "version", "job_id", "design_id", "from_node_id", "from_port", "to_node_id", "to_port", "length_m", "measured")
SELECT "crew_id", gen_random_uuid(), "version", "job_id", "design_id", new_id, 'out', router_id, port, 0, false FROM jumpers;--> statement-breakpoint
ALTER TABLE "designs" DROP COLUMN "obstruction_db";--> statement-breakpoint
ALTER TABLE "nodes" DROP COLUMN "role";--> statement-breakpoint
ALTER TABLE "nodes" DROP COLUMN "gain_db";
