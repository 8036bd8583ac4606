CREATE TABLE "source_rechecks" (
	"workspace_id" uuid NOT NULL,
	"source_id" uuid NOT NULL,
	"reason" text NOT NULL,
	CONSTRAINT "source_rechecks_workspace_id_source_id_pk" PRIMARY KEY("workspace_id","source_id")
);
