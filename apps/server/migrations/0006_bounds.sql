ALTER TABLE "jobs" ADD COLUMN "taken" integer DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE "index_queue" ADD COLUMN "failures" integer DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE "index_queue" ADD COLUMN "after" timestamp with time zone;--> statement-breakpoint
ALTER TABLE "source_text" ADD COLUMN "left_out" integer DEFAULT 0 NOT NULL;