DROP INDEX "masts_job";--> statement-breakpoint
CREATE INDEX "cells_job" ON "cells" USING btree ("crew_id","job_id") WHERE job_id is not null;--> statement-breakpoint
CREATE INDEX "masts_job" ON "masts" USING btree ("crew_id","job_id") WHERE job_id is not null;--> statement-breakpoint
UPDATE "cells" SET "id" = (substr("mast_id"::text, 1, 8) || substr("id"::text, 9))::uuid WHERE "job_id" is null AND substr("id"::text, 15, 1) = '8';
