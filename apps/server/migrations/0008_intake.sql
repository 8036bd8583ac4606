CREATE TABLE "source_origins" (
	"workspace_id" uuid NOT NULL,
	"source_id" uuid NOT NULL,
	"came" text,
	"spans" jsonb,
	"found" jsonb,
	"looked_up" text,
	"at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "source_origins_workspace_id_source_id_pk" PRIMARY KEY("workspace_id","source_id")
);
--> statement-breakpoint
ALTER TABLE "workspaces" ADD COLUMN "settings" jsonb DEFAULT '{}'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "imports" ADD COLUMN "way" text DEFAULT 'files' NOT NULL;--> statement-breakpoint
ALTER TABLE "imports" ADD COLUMN "destination" jsonb;--> statement-breakpoint
ALTER TABLE "imports" ADD COLUMN "through" text;--> statement-breakpoint
ALTER TABLE "source_sort" ADD COLUMN "lacks" text[] DEFAULT '{}' NOT NULL;--> statement-breakpoint
UPDATE "imports" SET "destination" = jsonb_build_object('collections', jsonb_build_array("collection_id"), 'tags', '[]'::jsonb, 'reading', null::text) WHERE "collection_id" IS NOT NULL;--> statement-breakpoint
ALTER TABLE "imports" DROP COLUMN "collection_id";--> statement-breakpoint
CREATE INDEX "sources_waiting" ON "sources" USING btree ("workspace_id","import_id") WHERE "presence" = 'intake';