CREATE TABLE "relations" (
	"workspace_id" uuid NOT NULL,
	"from_id" uuid NOT NULL,
	"to_id" uuid NOT NULL,
	"as" text NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "relations_workspace_id_from_id_to_id_as_pk" PRIMARY KEY("workspace_id","from_id","to_id","as")
);
--> statement-breakpoint
ALTER TABLE "sources" ADD COLUMN "merged_into" uuid;--> statement-breakpoint
CREATE INDEX "relations_to" ON "relations" USING btree ("workspace_id","to_id");