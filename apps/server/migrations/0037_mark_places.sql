ALTER TABLE "files" ADD COLUMN "annotations" jsonb;--> statement-breakpoint
ALTER TABLE "marks" ADD COLUMN "unplaced" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "marks" ADD COLUMN "origin" jsonb;