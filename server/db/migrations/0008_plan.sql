ALTER TABLE "jobs" ADD COLUMN "planning" jsonb;--> statement-breakpoint
ALTER TABLE "yard_rules" ADD COLUMN "hands" jsonb DEFAULT '[]'::jsonb NOT NULL;