CREATE TABLE "text_notes" (
	"workspace_id" uuid NOT NULL,
	"revision" integer NOT NULL,
	"numbers" integer[] NOT NULL,
	CONSTRAINT "text_notes_workspace_id_revision_pk" PRIMARY KEY("workspace_id","revision")
);
--> statement-breakpoint
CREATE INDEX "source_sort_kind" ON "source_sort" USING btree ("workspace_id","presence","kind","number");