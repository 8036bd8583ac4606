CREATE TABLE "file_passwords" (
	"workspace_id" uuid NOT NULL,
	"user_id" uuid NOT NULL,
	"file_id" uuid NOT NULL,
	"sealed" text NOT NULL,
	CONSTRAINT "file_passwords_workspace_id_user_id_file_id_pk" PRIMARY KEY("workspace_id","user_id","file_id")
);
--> statement-breakpoint
CREATE TABLE "open_documents" (
	"workspace_id" uuid NOT NULL,
	"user_id" uuid NOT NULL,
	"kept" jsonb NOT NULL,
	CONSTRAINT "open_documents_workspace_id_user_id_pk" PRIMARY KEY("workspace_id","user_id")
);
