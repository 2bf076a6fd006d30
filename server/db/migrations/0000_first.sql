CREATE TABLE "boats" (
	"id" uuid PRIMARY KEY NOT NULL,
	"name" text NOT NULL,
	"hull_material" text NOT NULL,
	"keels" text NOT NULL,
	"loa_m" double precision NOT NULL,
	"lwl_m" double precision NOT NULL,
	"beam_m" double precision NOT NULL,
	"draft_m" double precision NOT NULL,
	"freeboard_m" double precision NOT NULL,
	"form" text NOT NULL,
	"place" text NOT NULL,
	"latitude_deg" double precision NOT NULL,
	"time_zone" text NOT NULL,
	"version" integer NOT NULL,
	"deleted" boolean DEFAULT false NOT NULL
);
--> statement-breakpoint
CREATE TABLE "build_ups" (
	"id" uuid PRIMARY KEY NOT NULL,
	"boat_id" uuid NOT NULL,
	"surface_id" uuid NOT NULL,
	"layers" jsonb NOT NULL,
	"version" integer NOT NULL,
	"deleted" boolean DEFAULT false NOT NULL
);
--> statement-breakpoint
CREATE TABLE "entries" (
	"seq" bigserial PRIMARY KEY NOT NULL,
	"id" uuid NOT NULL,
	"boat_id" uuid NOT NULL,
	"stream" text NOT NULL,
	"stream_id" uuid NOT NULL,
	"kind" text NOT NULL,
	"occurred_at" bigint NOT NULL,
	"recorded_at" bigint NOT NULL,
	"painter" text NOT NULL,
	"device" text NOT NULL,
	"supersedes" uuid,
	"body" jsonb NOT NULL,
	CONSTRAINT "entries_id_unique" UNIQUE("id")
);
--> statement-breakpoint
CREATE TABLE "facts" (
	"key" text PRIMARY KEY NOT NULL,
	"value" jsonb NOT NULL
);
--> statement-breakpoint
CREATE TABLE "jobs" (
	"id" uuid PRIMARY KEY NOT NULL,
	"boat_id" uuid NOT NULL,
	"out_on" date NOT NULL,
	"in_on" date,
	"yard_cost_per_day_minor" integer,
	"currency" text NOT NULL,
	"version" integer NOT NULL,
	"deleted" boolean DEFAULT false NOT NULL
);
--> statement-breakpoint
CREATE TABLE "sheet_revisions" (
	"id" uuid PRIMARY KEY NOT NULL,
	"sheet_id" uuid NOT NULL,
	"revision" integer NOT NULL,
	"body" jsonb NOT NULL,
	"created_at" bigint NOT NULL
);
--> statement-breakpoint
CREATE TABLE "sheets" (
	"id" uuid PRIMARY KEY NOT NULL,
	"withdrawn" boolean DEFAULT false NOT NULL,
	"version" integer NOT NULL
);
--> statement-breakpoint
CREATE TABLE "surfaces" (
	"id" uuid PRIMARY KEY NOT NULL,
	"boat_id" uuid NOT NULL,
	"name" text NOT NULL,
	"kind" text NOT NULL,
	"substrate" text NOT NULL,
	"exposure" text NOT NULL,
	"existing" text NOT NULL,
	"area" jsonb NOT NULL,
	"sort" double precision NOT NULL,
	"version" integer NOT NULL,
	"deleted" boolean DEFAULT false NOT NULL
);
--> statement-breakpoint
CREATE TABLE "weather_issues" (
	"id" uuid PRIMARY KEY NOT NULL,
	"boat_id" uuid NOT NULL,
	"source" text NOT NULL,
	"issued_at" bigint NOT NULL,
	"hours" jsonb NOT NULL,
	"typed_days" jsonb
);
--> statement-breakpoint
ALTER TABLE "build_ups" ADD CONSTRAINT "build_ups_boat_id_boats_id_fk" FOREIGN KEY ("boat_id") REFERENCES "public"."boats"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "build_ups" ADD CONSTRAINT "build_ups_surface_id_surfaces_id_fk" FOREIGN KEY ("surface_id") REFERENCES "public"."surfaces"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "entries" ADD CONSTRAINT "entries_boat_id_boats_id_fk" FOREIGN KEY ("boat_id") REFERENCES "public"."boats"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "jobs" ADD CONSTRAINT "jobs_boat_id_boats_id_fk" FOREIGN KEY ("boat_id") REFERENCES "public"."boats"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "sheet_revisions" ADD CONSTRAINT "sheet_revisions_sheet_id_sheets_id_fk" FOREIGN KEY ("sheet_id") REFERENCES "public"."sheets"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "surfaces" ADD CONSTRAINT "surfaces_boat_id_boats_id_fk" FOREIGN KEY ("boat_id") REFERENCES "public"."boats"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "weather_issues" ADD CONSTRAINT "weather_issues_boat_id_boats_id_fk" FOREIGN KEY ("boat_id") REFERENCES "public"."boats"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE UNIQUE INDEX "build_ups_surface" ON "build_ups" USING btree ("surface_id");--> statement-breakpoint
CREATE INDEX "entries_boat" ON "entries" USING btree ("boat_id");--> statement-breakpoint
CREATE INDEX "entries_stream" ON "entries" USING btree ("stream_id");--> statement-breakpoint
CREATE INDEX "jobs_boat" ON "jobs" USING btree ("boat_id");--> statement-breakpoint
CREATE UNIQUE INDEX "sheet_revisions_number" ON "sheet_revisions" USING btree ("sheet_id","revision");--> statement-breakpoint
CREATE INDEX "surfaces_boat" ON "surfaces" USING btree ("boat_id");--> statement-breakpoint
CREATE UNIQUE INDEX "weather_issues_once" ON "weather_issues" USING btree ("boat_id","source","issued_at");