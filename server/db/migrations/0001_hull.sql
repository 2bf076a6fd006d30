CREATE TABLE "hulls" (
	"id" uuid PRIMARY KEY NOT NULL,
	"boat_id" uuid NOT NULL,
	"offsets" jsonb,
	"mesh" jsonb,
	"version" integer NOT NULL,
	"deleted" boolean DEFAULT false NOT NULL
);
--> statement-breakpoint
ALTER TABLE "surfaces" ADD COLUMN "side" text DEFAULT 'both' NOT NULL;--> statement-breakpoint
ALTER TABLE "surfaces" ADD COLUMN "part_share" double precision;--> statement-breakpoint
ALTER TABLE "surfaces" ADD COLUMN "notes" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "surfaces" ADD COLUMN "mask_list" jsonb DEFAULT '[]'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "surfaces" ADD COLUMN "open_work" jsonb DEFAULT '[]'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "surfaces" ADD COLUMN "parent_id" uuid;--> statement-breakpoint
ALTER TABLE "surfaces" ADD COLUMN "patch_kind" text;--> statement-breakpoint
ALTER TABLE "surfaces" ADD COLUMN "shared_coats" integer;--> statement-breakpoint
ALTER TABLE "hulls" ADD CONSTRAINT "hulls_boat_id_boats_id_fk" FOREIGN KEY ("boat_id") REFERENCES "public"."boats"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE UNIQUE INDEX "hulls_boat" ON "hulls" USING btree ("boat_id");