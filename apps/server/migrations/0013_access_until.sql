CREATE TABLE "access_reminders" (
	"workspace_id" uuid NOT NULL,
	"source_id" uuid NOT NULL,
	"until" text NOT NULL,
	CONSTRAINT "access_reminders_workspace_id_source_id_until_pk" PRIMARY KEY("workspace_id","source_id","until")
);
