ALTER TABLE "source_sort" ADD COLUMN "told" text[] DEFAULT '{}' NOT NULL;--> statement-breakpoint
UPDATE "source_sort" SET "findings" = NULL;
