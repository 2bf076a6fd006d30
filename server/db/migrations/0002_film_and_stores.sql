CREATE TABLE "borders" (
	"id" uuid PRIMARY KEY NOT NULL,
	"boat_id" uuid NOT NULL,
	"upper_id" uuid NOT NULL,
	"lower_id" uuid NOT NULL,
	"rule" text NOT NULL,
	"width_m" double precision NOT NULL,
	"epoxy_runs_on" boolean NOT NULL,
	"hand_strip_m" double precision NOT NULL,
	"note" text NOT NULL,
	"version" integer NOT NULL,
	"deleted" boolean DEFAULT false NOT NULL
);
--> statement-breakpoint
CREATE TABLE "lots" (
	"id" uuid PRIMARY KEY NOT NULL,
	"sheet_id" uuid NOT NULL,
	"part" text NOT NULL,
	"size_l" double precision NOT NULL,
	"batch_number" text NOT NULL,
	"supplier" text NOT NULL,
	"bought_on" date,
	"opened_on" date,
	"expires_on" date,
	"left_l" double precision NOT NULL,
	"measured_at" bigint NOT NULL,
	"weighed" jsonb,
	"note" text NOT NULL,
	"version" integer NOT NULL,
	"deleted" boolean DEFAULT false NOT NULL
);
--> statement-breakpoint
CREATE TABLE "named_build_ups" (
	"id" uuid PRIMARY KEY NOT NULL,
	"name" text NOT NULL,
	"substrates" jsonb NOT NULL,
	"exposure" text NOT NULL,
	"bond" text NOT NULL,
	"note" text NOT NULL,
	"target_micron" double precision,
	"layers" jsonb NOT NULL,
	"version" integer NOT NULL,
	"deleted" boolean DEFAULT false NOT NULL
);
--> statement-breakpoint
CREATE TABLE "yard_rules" (
	"id" uuid PRIMARY KEY NOT NULL,
	"chance" double precision NOT NULL,
	"consumables" jsonb NOT NULL,
	"version" integer NOT NULL
);
--> statement-breakpoint
ALTER TABLE "boats" ADD COLUMN "waters" text;--> statement-breakpoint
ALTER TABLE "build_ups" ADD COLUMN "named_id" uuid;--> statement-breakpoint
ALTER TABLE "build_ups" ADD COLUMN "target_micron" double precision;--> statement-breakpoint
ALTER TABLE "build_ups" ADD COLUMN "overrides" jsonb DEFAULT '[]'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "build_ups" ADD COLUMN "records" jsonb DEFAULT '[]'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "jobs" ADD COLUMN "choices" jsonb;--> statement-breakpoint
ALTER TABLE "sheets" ADD COLUMN "deleted" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "borders" ADD CONSTRAINT "borders_boat_id_boats_id_fk" FOREIGN KEY ("boat_id") REFERENCES "public"."boats"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "borders" ADD CONSTRAINT "borders_upper_id_surfaces_id_fk" FOREIGN KEY ("upper_id") REFERENCES "public"."surfaces"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "borders" ADD CONSTRAINT "borders_lower_id_surfaces_id_fk" FOREIGN KEY ("lower_id") REFERENCES "public"."surfaces"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "lots" ADD CONSTRAINT "lots_sheet_id_sheets_id_fk" FOREIGN KEY ("sheet_id") REFERENCES "public"."sheets"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "borders_boat" ON "borders" USING btree ("boat_id");--> statement-breakpoint
CREATE INDEX "lots_sheet" ON "lots" USING btree ("sheet_id");