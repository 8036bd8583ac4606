CREATE TABLE "entries" (
	"workspace_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"list" text NOT NULL,
	"value" jsonb NOT NULL,
	CONSTRAINT "entries_workspace_id_list_id_pk" PRIMARY KEY("workspace_id","list","id")
);
--> statement-breakpoint
CREATE TABLE "source_labels" (
	"workspace_id" uuid NOT NULL,
	"source_id" uuid NOT NULL,
	"label_id" uuid NOT NULL,
	CONSTRAINT "source_labels_workspace_id_source_id_label_id_pk" PRIMARY KEY("workspace_id","source_id","label_id")
);
--> statement-breakpoint
CREATE TABLE "source_ratings" (
	"workspace_id" uuid NOT NULL,
	"source_id" uuid NOT NULL,
	"rating" integer NOT NULL,
	CONSTRAINT "source_ratings_workspace_id_source_id_pk" PRIMARY KEY("workspace_id","source_id")
);
--> statement-breakpoint
CREATE TABLE "index_words" (
	"workspace_id" uuid NOT NULL,
	"word" text NOT NULL,
	CONSTRAINT "index_words_workspace_id_word_pk" PRIMARY KEY("workspace_id","word")
);
--> statement-breakpoint
ALTER TABLE "changes" ADD COLUMN "owner" uuid;--> statement-breakpoint
CREATE INDEX "entries_named" ON "entries" USING btree ("workspace_id","list",lower("value"->>'name'));--> statement-breakpoint
CREATE INDEX "source_labels_label" ON "source_labels" USING btree ("workspace_id","label_id");--> statement-breakpoint
CREATE EXTENSION IF NOT EXISTS fuzzystrmatch;--> statement-breakpoint
-- Whose own a change is stood in its JSON: the member it names, or who made it.
UPDATE "changes" SET "owner" = coalesce(("change"->>'member')::uuid, "actor_id") WHERE "change"->>'do' IN ('reading', 'star');--> statement-breakpoint
-- New fields are searched and new facets offered: what is here is read in and looked over again, by and by.
INSERT INTO "index_queue" ("workspace_id", "source_id") SELECT "workspace_id", "id" FROM "sources" ON CONFLICT DO NOTHING;--> statement-breakpoint
UPDATE "source_sort" SET "findings" = NULL;
