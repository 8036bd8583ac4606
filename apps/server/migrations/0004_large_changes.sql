ALTER TABLE "jobs" ADD COLUMN "input" jsonb;--> statement-breakpoint
ALTER TABLE "jobs" ADD COLUMN "result" jsonb;