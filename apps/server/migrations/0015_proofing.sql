CREATE TABLE "settled" (
	"workspace_id" uuid NOT NULL,
	"what" text NOT NULL,
	"name" text NOT NULL,
	"source_id" uuid,
	"at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "settled_once" UNIQUE NULLS NOT DISTINCT("workspace_id","what","name","source_id")
);
--> statement-breakpoint
ALTER TABLE "source_sort" ADD COLUMN "findings" text[];--> statement-breakpoint
CREATE INDEX "source_sort_behind" ON "source_sort" USING btree ("workspace_id") WHERE findings is null;--> statement-breakpoint
INSERT INTO "source_keys" ("workspace_id", "source_id", "key") SELECT "workspace_id", "id", 'cite:' || lower("record"->>'citation-key') FROM "sources" WHERE "record"->>'citation-key' <> '' ON CONFLICT DO NOTHING;
