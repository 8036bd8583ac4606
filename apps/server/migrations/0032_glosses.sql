CREATE TABLE "glosses" (
	"workspace_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"source_id" uuid NOT NULL,
	"text" text DEFAULT '' NOT NULL,
	"present" boolean DEFAULT true NOT NULL,
	"made_by" uuid,
	"made_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "glosses_workspace_id_id_pk" PRIMARY KEY("workspace_id","id")
);
--> statement-breakpoint
CREATE INDEX "glosses_source" ON "glosses" USING btree ("workspace_id","source_id");