ALTER TABLE "fixtures" ADD COLUMN "behind_found" text;--> statement-breakpoint
ALTER TABLE "own_steps" ADD COLUMN "before_key" text;