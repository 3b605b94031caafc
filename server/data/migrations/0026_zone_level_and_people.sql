ALTER TABLE "zones" ADD COLUMN "need_dbm" double precision;--> statement-breakpoint
ALTER TABLE "zones" ADD COLUMN "people" double precision;