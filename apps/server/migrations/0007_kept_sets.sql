CREATE TABLE "text_notes" (
	"workspace_id" uuid NOT NULL,
	"revision" integer NOT NULL,
	"numbers" integer[] NOT NULL,
	CONSTRAINT "text_notes_workspace_id_revision_pk" PRIMARY KEY("workspace_id","revision")
);
