INSERT INTO "typed_forecasts" ("id", "boat_id", "issued_at", "days") SELECT "id", "boat_id", "issued_at", coalesce("typed_days", '[]'::jsonb) FROM "weather_issues" WHERE "source" = 'typed' ON CONFLICT DO NOTHING;--> statement-breakpoint
DROP TABLE "weather_issues" CASCADE;
