ALTER TABLE "calls" ALTER COLUMN "withdrawn" DROP DEFAULT;--> statement-breakpoint
ALTER TABLE "floor_plans" ALTER COLUMN "width_px" SET DATA TYPE smallint;--> statement-breakpoint
ALTER TABLE "floor_plans" ALTER COLUMN "height_px" SET DATA TYPE smallint;--> statement-breakpoint
ALTER TABLE "floor_plans" ALTER COLUMN "opacity" DROP DEFAULT;--> statement-breakpoint
ALTER TABLE "jobs" ALTER COLUMN "kind" DROP DEFAULT;--> statement-breakpoint
ALTER TABLE "jobs" ALTER COLUMN "agreed_calls" DROP DEFAULT;--> statement-breakpoint
ALTER TABLE "jobs" ALTER COLUMN "may_drill" DROP DEFAULT;--> statement-breakpoint
ALTER TABLE "jobs" ALTER COLUMN "rules" DROP DEFAULT;--> statement-breakpoint
ALTER TABLE "nodes" ALTER COLUMN "tilt_deg" DROP DEFAULT;--> statement-breakpoint
ALTER TABLE "photos" ALTER COLUMN "width_px" SET DATA TYPE smallint;--> statement-breakpoint
ALTER TABLE "photos" ALTER COLUMN "height_px" SET DATA TYPE smallint;--> statement-breakpoint
ALTER TABLE "pictures" ALTER COLUMN "width_px" SET DATA TYPE smallint;--> statement-breakpoint
ALTER TABLE "pictures" ALTER COLUMN "height_px" SET DATA TYPE smallint;--> statement-breakpoint
ALTER TABLE "pictures" ALTER COLUMN "opacity" DROP DEFAULT;--> statement-breakpoint
ALTER TABLE "readings" ALTER COLUMN "withdrawn" DROP DEFAULT;--> statement-breakpoint
ALTER TABLE "runs" ALTER COLUMN "measured" DROP DEFAULT;--> statement-breakpoint
ALTER TABLE "sites" ALTER COLUMN "zone" DROP DEFAULT;--> statement-breakpoint
ALTER TABLE "sites" ALTER COLUMN "axis_deg" DROP DEFAULT;--> statement-breakpoint
ALTER TABLE "sites" ALTER COLUMN "wall_material" SET DEFAULT 'brick';--> statement-breakpoint
ALTER TABLE "sites" ALTER COLUMN "pane_material" SET DEFAULT 'glass';--> statement-breakpoint
ALTER TABLE "sites" ALTER COLUMN "pane_percent" SET DEFAULT 15;--> statement-breakpoint
ALTER TABLE "sites" ALTER COLUMN "floor_material" SET DEFAULT 'timber floor';--> statement-breakpoint
ALTER TABLE "sites" ALTER COLUMN "roof_material" SET DEFAULT 'tiles';--> statement-breakpoint
ALTER TABLE "speed_runs" ALTER COLUMN "withdrawn" DROP DEFAULT;--> statement-breakpoint
ALTER TABLE "speed_runs" ALTER COLUMN "would_not_load" DROP DEFAULT;--> statement-breakpoint
ALTER TABLE "spots" ALTER COLUMN "needed" DROP DEFAULT;--> statement-breakpoint
ALTER TABLE "steps" ALTER COLUMN "withdrawn" DROP DEFAULT;--> statement-breakpoint
ALTER TABLE "stops" ALTER COLUMN "zone" DROP DEFAULT;--> statement-breakpoint
ALTER TABLE "stops" ALTER COLUMN "swing_deg" DROP DEFAULT;--> statement-breakpoint
ALTER TABLE "watches" ALTER COLUMN "withdrawn" DROP DEFAULT;--> statement-breakpoint
ALTER TABLE "cells" ADD CONSTRAINT "cells_technology_word" CHECK ("cells"."technology" in ('LTE', 'NR'));--> statement-breakpoint
ALTER TABLE "checks" ADD CONSTRAINT "checks_kind_word" CHECK ("checks"."kind" in ('tick', 'accept', 'step', 'fact', 'read', 'lesson'));--> statement-breakpoint
ALTER TABLE "designs" ADD CONSTRAINT "designs_approach_word" CHECK ("designs"."approach" in ('router', 'booster'));--> statement-breakpoint
ALTER TABLE "designs" ADD CONSTRAINT "designs_plugs_word" CHECK ("designs"."plugs" in ('factory', 'crimped'));--> statement-breakpoint
ALTER TABLE "devices" ADD CONSTRAINT "devices_kind_word" CHECK ("devices"."kind" in ('phone', 'router', 'modem'));--> statement-breakpoint
ALTER TABLE "fixtures" ADD CONSTRAINT "fixtures_kind_word" CHECK ("fixtures"."kind" in ('mains socket', '12 V feed', 'satellite terminal', 'roof unit', 'way in', 'duct', 'electrode'));--> statement-breakpoint
ALTER TABLE "fixtures" ADD CONSTRAINT "fixtures_entry_word" CHECK ("fixtures"."entry" in ('port', 'old-cable', 'window', 'grommet', 'vent', 'garage', 'fridge-vent', 'hatch', 'wall', 'deck', 'roof', 'flue'));--> statement-breakpoint
ALTER TABLE "fixtures" ADD CONSTRAINT "fixtures_behind_word" CHECK ("fixtures"."behind" in ('known', 'looked at'));--> statement-breakpoint
ALTER TABLE "fixtures" ADD CONSTRAINT "fixtures_behind_found_word" CHECK ("fixtures"."behind_found" in ('clear', 'line', 'pipe', 'gas', 'fire wall', 'asbestos', 'deck core'));--> statement-breakpoint
ALTER TABLE "fixtures" ADD CONSTRAINT "fixtures_electrode_word" CHECK ("fixtures"."electrode" in ('rod', 'house earthing', 'hull plate', 'water pipe', 'gas pipe'));--> statement-breakpoint
ALTER TABLE "fixtures" ADD CONSTRAINT "fixtures_bonded_word" CHECK ("fixtures"."bonded" in ('yes', 'no'));--> statement-breakpoint
ALTER TABLE "fixtures" ADD CONSTRAINT "fixtures_conductor_word" CHECK ("fixtures"."conductor" in ('solid', 'braid'));--> statement-breakpoint
ALTER TABLE "floors" ADD CONSTRAINT "floors_material_word" CHECK ("floors"."material" in ('open', 'plasterboard', 'timber', 'brick', 'block', 'concrete', 'reinforced concrete', 'timber floor', 'tiles', 'sheet metal', 'foil', 'glass', 'coated glass', 'plastic'));--> statement-breakpoint
ALTER TABLE "isolations" ADD CONSTRAINT "isolations_in_force_word" CHECK ("isolations"."in_force" in ('computed', 'quick', 'maker', 'measured'));--> statement-breakpoint
ALTER TABLE "jobs" ADD CONSTRAINT "jobs_kind_word" CHECK ("jobs"."kind" in ('home', 'building', 'vehicle', 'boat'));--> statement-breakpoint
ALTER TABLE "jobs" ADD CONSTRAINT "jobs_may_drill_word" CHECK ("jobs"."may_drill" in ('yes', 'no', 'ask'));--> statement-breakpoint
ALTER TABLE "jobs" ADD CONSTRAINT "jobs_rules_word" CHECK ("jobs"."rules" in ('generic', 'US', 'UK', 'EU', 'AU'));--> statement-breakpoint
ALTER TABLE "nodes" ADD CONSTRAINT "nodes_polarisation_word" CHECK ("nodes"."polarisation" in ('vertical', 'horizontal', 'slant'));--> statement-breakpoint
ALTER TABLE "own_steps" ADD CONSTRAINT "own_steps_stand_word" CHECK ("own_steps"."stand" in ('in coverage', 'ground', 'up'));--> statement-breakpoint
ALTER TABLE "readings" ADD CONSTRAINT "readings_technology_word" CHECK ("readings"."technology" in ('LTE', 'NR'));--> statement-breakpoint
ALTER TABLE "readings" ADD CONSTRAINT "readings_carrier_role_word" CHECK ("readings"."carrier_role" in ('anchor', 'added', 'NR'));--> statement-breakpoint
ALTER TABLE "setups" ADD CONSTRAINT "setups_link_word" CHECK ("setups"."link" in ('device', 'LAN', 'Wi-Fi 2.4', 'Wi-Fi 5'));--> statement-breakpoint
ALTER TABLE "setups" ADD CONSTRAINT "setups_antenna_word" CHECK ("setups"."antenna" in ('built in', 'outside'));--> statement-breakpoint
ALTER TABLE "setups" ADD CONSTRAINT "setups_booster_word" CHECK ("setups"."booster" in ('none', 'off', 'on'));--> statement-breakpoint
ALTER TABLE "setups" ADD CONSTRAINT "setups_power_word" CHECK ("setups"."power" in ('battery', 'lead'));--> statement-breakpoint
ALTER TABLE "setups" ADD CONSTRAINT "setups_own_antennas_word" CHECK ("setups"."own_antennas" in ('in', 'out'));--> statement-breakpoint
ALTER TABLE "setups" ADD CONSTRAINT "setups_mark_word" CHECK ("setups"."mark" in ('before', 'after'));--> statement-breakpoint
ALTER TABLE "sheets" ADD CONSTRAINT "sheets_material_word" CHECK ("sheets"."material" in ('open', 'plasterboard', 'timber', 'brick', 'block', 'concrete', 'reinforced concrete', 'timber floor', 'tiles', 'sheet metal', 'foil', 'glass', 'coated glass', 'plastic'));--> statement-breakpoint
ALTER TABLE "sims" ADD CONSTRAINT "sims_calls_over_wifi_word" CHECK ("sims"."calls_over_wifi" in ('yes', 'no'));--> statement-breakpoint
ALTER TABLE "sites" ADD CONSTRAINT "sites_wall_material_word" CHECK ("sites"."wall_material" in ('open', 'plasterboard', 'timber', 'brick', 'block', 'concrete', 'reinforced concrete', 'timber floor', 'tiles', 'sheet metal', 'foil', 'glass', 'coated glass', 'plastic'));--> statement-breakpoint
ALTER TABLE "sites" ADD CONSTRAINT "sites_pane_material_word" CHECK ("sites"."pane_material" in ('open', 'plasterboard', 'timber', 'brick', 'block', 'concrete', 'reinforced concrete', 'timber floor', 'tiles', 'sheet metal', 'foil', 'glass', 'coated glass', 'plastic'));--> statement-breakpoint
ALTER TABLE "sites" ADD CONSTRAINT "sites_floor_material_word" CHECK ("sites"."floor_material" in ('open', 'plasterboard', 'timber', 'brick', 'block', 'concrete', 'reinforced concrete', 'timber floor', 'tiles', 'sheet metal', 'foil', 'glass', 'coated glass', 'plastic'));--> statement-breakpoint
ALTER TABLE "sites" ADD CONSTRAINT "sites_roof_material_word" CHECK ("sites"."roof_material" in ('open', 'plasterboard', 'timber', 'brick', 'block', 'concrete', 'reinforced concrete', 'timber floor', 'tiles', 'sheet metal', 'foil', 'glass', 'coated glass', 'plastic'));--> statement-breakpoint
ALTER TABLE "spots" ADD CONSTRAINT "spots_station_word" CHECK ("spots"."station" in ('device', 'corner', 'window', 'outside', 'high', 'donor'));--> statement-breakpoint
ALTER TABLE "spots" ADD CONSTRAINT "spots_use_word" CHECK ("spots"."use" in ('home', 'office', 'shop', 'store', 'hall'));--> statement-breakpoint
ALTER TABLE "supplies" ADD CONSTRAINT "supplies_state_word" CHECK ("supplies"."state" in ('to get', 'ordered', 'here', 'packed', 'brought back'));--> statement-breakpoint
ALTER TABLE "sweeps" ADD CONSTRAINT "sweeps_quantity_word" CHECK ("sweeps"."quantity" in ('SINR', 'RSRP', 'RSRQ', 'down', 'up', 'lamps'));--> statement-breakpoint
ALTER TABLE "sweeps" ADD CONSTRAINT "sweeps_reference_word" CHECK ("sweeps"."reference" in ('true', 'magnetic'));--> statement-breakpoint
ALTER TABLE "sweeps" ADD CONSTRAINT "sweeps_axis_word" CHECK ("sweeps"."axis" in ('heading', 'tilt', 'branch'));--> statement-breakpoint
ALTER TABLE "visits" ADD CONSTRAINT "visits_weather_word" CHECK ("visits"."weather" in ('any', 'dry', 'dry and calm'));--> statement-breakpoint
ALTER TABLE "visits" ADD CONSTRAINT "visits_state_word" CHECK ("visits"."state" in ('planned', 'confirmed', 'done', 'called off'));--> statement-breakpoint
ALTER TABLE "walls" ADD CONSTRAINT "walls_material_word" CHECK ("walls"."material" in ('open', 'plasterboard', 'timber', 'brick', 'block', 'concrete', 'reinforced concrete', 'timber floor', 'tiles', 'sheet metal', 'foil', 'glass', 'coated glass', 'plastic'));--> statement-breakpoint
ALTER TABLE "watches" ADD CONSTRAINT "watches_kind_word" CHECK ("watches"."kind" in ('watch', 'drill'));