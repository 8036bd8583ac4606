ALTER TABLE "source_origins" ADD COLUMN "trouble" text;--> statement-breakpoint
ALTER TABLE "source_origins" ADD COLUMN "folder" text;