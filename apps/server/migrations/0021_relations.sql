ALTER TABLE "relations" ADD COLUMN "note" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "relations" ADD COLUMN "page" text DEFAULT '' NOT NULL;