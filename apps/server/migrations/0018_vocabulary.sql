ALTER TABLE "tags" ADD COLUMN "says" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "tags" ADD COLUMN "heading" text DEFAULT '' NOT NULL;