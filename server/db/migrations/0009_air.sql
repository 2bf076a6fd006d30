ALTER TABLE "typed_forecasts" ADD COLUMN "hours" jsonb;--> statement-breakpoint
ALTER TABLE "yard_rules" ADD COLUMN "heat" jsonb;