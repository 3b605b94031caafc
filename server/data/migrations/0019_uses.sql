ALTER TABLE "spots" ADD COLUMN "use" text;--> statement-breakpoint
ALTER TABLE "spots" ADD COLUMN "need_dbm" double precision;