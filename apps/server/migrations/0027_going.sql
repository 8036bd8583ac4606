ALTER TABLE "saved_watches" ADD COLUMN "failures" integer DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE "changes" ADD COLUMN "kinds" text[];--> statement-breakpoint
CREATE INDEX "jobs_going" ON "jobs" USING btree ("kind","id") WHERE state in ('waiting', 'running');--> statement-breakpoint
UPDATE "changes" SET "kinds" = ARRAY(SELECT DISTINCT e #>> '{}' FROM jsonb_path_query("change", 'strict $.**.do') e);
