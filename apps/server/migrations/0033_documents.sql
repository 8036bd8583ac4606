ALTER TABLE "page_text" RENAME TO "documents";--> statement-breakpoint
ALTER TABLE "documents" RENAME COLUMN "file_id" TO "id";--> statement-breakpoint
ALTER TABLE "documents" RENAME COLUMN "number" TO "part";--> statement-breakpoint
ALTER TABLE "documents" ADD COLUMN "kind" text DEFAULT 'page' NOT NULL;--> statement-breakpoint
ALTER TABLE "documents" ALTER COLUMN "kind" DROP DEFAULT;--> statement-breakpoint
ALTER TABLE "documents" ADD COLUMN "source_id" uuid;--> statement-breakpoint
ALTER TABLE "documents" ADD COLUMN "audience" uuid;--> statement-breakpoint
ALTER TABLE "documents" DROP CONSTRAINT "page_text_workspace_id_file_id_number_pk";--> statement-breakpoint
ALTER TABLE "documents" ADD CONSTRAINT "documents_workspace_id_kind_id_part_pk" PRIMARY KEY("workspace_id","kind","id","part");--> statement-breakpoint
ALTER INDEX "page_text_vector" RENAME TO "documents_vector";--> statement-breakpoint
CREATE INDEX "documents_source" ON "documents" USING btree ("workspace_id","source_id") WHERE source_id is not null;--> statement-breakpoint
CREATE INDEX "documents_audience" ON "documents" USING btree ("workspace_id","audience") WHERE audience is not null;--> statement-breakpoint
ALTER TABLE "glosses" ADD COLUMN "owner" uuid;--> statement-breakpoint
-- What members wrote becomes documents: its sources, and what these became part of, are read by the indexer once more.
INSERT INTO "index_queue" ("workspace_id", "source_id")
WITH RECURSIVE written ("workspace_id", "id") AS (
	SELECT "workspace_id", "source_id" FROM "marks" WHERE "gloss" <> ''
	UNION SELECT "workspace_id", "source_id" FROM "glosses"
	UNION SELECT s."workspace_id", s."merged_into" FROM "sources" s JOIN written w ON s."workspace_id" = w."workspace_id" AND s."id" = w."id" WHERE s."merged_into" IS NOT NULL
)
SELECT "workspace_id", "id" FROM written w WHERE EXISTS (SELECT 1 FROM "sources" s WHERE s."workspace_id" = w."workspace_id" AND s."id" = w."id")
ON CONFLICT DO NOTHING;
