ALTER TABLE "boats" ADD COLUMN "shelter" text DEFAULT 'open' NOT NULL;--> statement-breakpoint
ALTER TABLE "surfaces" ADD COLUMN "shelter" text;--> statement-breakpoint
ALTER TABLE "surfaces" ADD COLUMN "holds" text;--> statement-breakpoint
ALTER TABLE "yard_rules" ADD COLUMN "work_from_min" integer DEFAULT 480 NOT NULL;--> statement-breakpoint
ALTER TABLE "yard_rules" ADD COLUMN "work_to_min" integer DEFAULT 1080 NOT NULL;--> statement-breakpoint
ALTER TABLE "yard_rules" ADD COLUMN "currency" text DEFAULT 'EUR' NOT NULL;