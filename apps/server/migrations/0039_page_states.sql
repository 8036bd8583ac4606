CREATE TABLE "page_states" (
	"workspace_id" uuid NOT NULL,
	"file_id" uuid NOT NULL,
	"page" integer NOT NULL,
	"state" jsonb NOT NULL,
	CONSTRAINT "page_states_workspace_id_file_id_page_pk" PRIMARY KEY("workspace_id","file_id","page")
);
