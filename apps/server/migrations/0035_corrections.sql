CREATE TABLE "corrections" (
	"workspace_id" uuid NOT NULL,
	"file_id" uuid NOT NULL,
	"page" integer NOT NULL,
	"line" integer NOT NULL,
	"text" text NOT NULL,
	CONSTRAINT "corrections_workspace_id_file_id_page_line_pk" PRIMARY KEY("workspace_id","file_id","page","line")
);
--> statement-breakpoint
CREATE TABLE "pages_as_read" (
	"workspace_id" uuid NOT NULL,
	"file_id" uuid NOT NULL,
	"number" integer NOT NULL,
	"text" text NOT NULL,
	"words" "bytea" NOT NULL,
	CONSTRAINT "pages_as_read_workspace_id_file_id_number_pk" PRIMARY KEY("workspace_id","file_id","number")
);
--> statement-breakpoint
ALTER TABLE "pages" ADD COLUMN "confidence" "bytea";