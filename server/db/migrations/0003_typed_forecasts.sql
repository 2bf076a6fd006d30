CREATE TABLE "past_places" (
	"id" uuid PRIMARY KEY NOT NULL,
	"boat_id" uuid NOT NULL,
	"until_at" bigint NOT NULL,
	"name" text NOT NULL,
	"latitude_deg" double precision NOT NULL,
	"time_zone" text NOT NULL
);
--> statement-breakpoint
CREATE TABLE "typed_forecasts" (
	"id" uuid PRIMARY KEY NOT NULL,
	"boat_id" uuid NOT NULL,
	"issued_at" bigint NOT NULL,
	"days" jsonb NOT NULL
);
--> statement-breakpoint
ALTER TABLE "past_places" ADD CONSTRAINT "past_places_boat_id_boats_id_fk" FOREIGN KEY ("boat_id") REFERENCES "public"."boats"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "typed_forecasts" ADD CONSTRAINT "typed_forecasts_boat_id_boats_id_fk" FOREIGN KEY ("boat_id") REFERENCES "public"."boats"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "past_places_boat" ON "past_places" USING btree ("boat_id");--> statement-breakpoint
CREATE UNIQUE INDEX "typed_forecasts_once" ON "typed_forecasts" USING btree ("boat_id","issued_at");