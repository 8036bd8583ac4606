ALTER TABLE "collections" ADD COLUMN "says" text;--> statement-breakpoint
ALTER TABLE "collections" ADD COLUMN "until" jsonb;--> statement-breakpoint
ALTER TABLE "collections" ADD COLUMN "rule" jsonb;--> statement-breakpoint
ALTER TABLE "placements" ADD COLUMN "rank" double precision;