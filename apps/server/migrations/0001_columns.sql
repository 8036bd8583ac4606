CREATE TABLE "derivations" (
	"workspace_id" uuid NOT NULL,
	"revision" integer NOT NULL,
	"numbers" integer[] NOT NULL,
	"sorts" boolean NOT NULL,
	CONSTRAINT "derivations_workspace_id_revision_pk" PRIMARY KEY("workspace_id","revision")
);
--> statement-breakpoint
DROP INDEX "source_facets_ids";--> statement-breakpoint
DROP INDEX "source_sort_year";--> statement-breakpoint
DROP INDEX "source_sort_added";--> statement-breakpoint
DROP INDEX "source_sort_title";--> statement-breakpoint
DROP INDEX "source_sort_author";--> statement-breakpoint
ALTER TABLE "source_sort" ADD COLUMN "number" integer;--> statement-breakpoint
ALTER TABLE "source_text" ADD COLUMN "number" integer;--> statement-breakpoint
ALTER TABLE "source_text" ADD COLUMN "fields" "tsvector";--> statement-breakpoint
ALTER TABLE "workspaces" ADD COLUMN "revision" integer DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE "workspaces" ADD COLUMN "numbers" integer DEFAULT 0 NOT NULL;--> statement-breakpoint
UPDATE "source_sort" s SET "number" = n."number" FROM (
	SELECT "workspace_id", "source_id", (row_number() OVER (PARTITION BY "workspace_id" ORDER BY "source_id") - 1)::int AS "number" FROM "source_sort") n
	WHERE n."workspace_id" = s."workspace_id" AND n."source_id" = s."source_id";--> statement-breakpoint
UPDATE "workspaces" w SET "numbers" = (SELECT coalesce(max(s."number") + 1, 0) FROM "source_sort" s WHERE s."workspace_id" = w."id");--> statement-breakpoint
-- The old vectors hold the words of the fields too: both columns serve until the indexer has written them anew.
DELETE FROM "source_text" t WHERE NOT EXISTS (SELECT 1 FROM "source_sort" s WHERE s."workspace_id" = t."workspace_id" AND s."source_id" = t."source_id");--> statement-breakpoint
UPDATE "source_text" t SET "number" = s."number", "fields" = t."vector" FROM "source_sort" s
	WHERE s."workspace_id" = t."workspace_id" AND s."source_id" = t."source_id";--> statement-breakpoint
INSERT INTO "index_queue" ("workspace_id", "source_id") SELECT "workspace_id", "id" FROM "sources" ON CONFLICT DO NOTHING;--> statement-breakpoint
ALTER TABLE "source_sort" ALTER COLUMN "number" SET NOT NULL;--> statement-breakpoint
ALTER TABLE "source_text" ALTER COLUMN "number" SET NOT NULL;--> statement-breakpoint
ALTER TABLE "source_text" ALTER COLUMN "fields" SET NOT NULL;--> statement-breakpoint
-- Twice as fast to unpack, where the server was built with it.
DO $$ BEGIN
	ALTER TABLE "source_text" ALTER COLUMN "vector" SET COMPRESSION lz4;
	ALTER TABLE "source_text" ALTER COLUMN "fields" SET COMPRESSION lz4;
	ALTER TABLE "page_text" ALTER COLUMN "vector" SET COMPRESSION lz4;
EXCEPTION WHEN feature_not_supported THEN NULL;
END $$;--> statement-breakpoint
CREATE UNIQUE INDEX "source_sort_number" ON "source_sort" USING btree ("workspace_id","number");--> statement-breakpoint
CREATE INDEX "source_sort_container" ON "source_sort" USING btree ("workspace_id","presence","container","number");--> statement-breakpoint
CREATE INDEX "source_text_fields" ON "source_text" USING gin ("fields");--> statement-breakpoint
CREATE INDEX "source_sort_title" ON "source_sort" USING btree ("workspace_id","presence","title","number");--> statement-breakpoint
CREATE INDEX "source_sort_author" ON "source_sort" USING btree ("workspace_id","presence","author","number");
