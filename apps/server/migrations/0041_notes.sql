CREATE TABLE "note_links" (
	"workspace_id" uuid NOT NULL,
	"note_id" uuid NOT NULL,
	"linked" text NOT NULL,
	"target_id" uuid NOT NULL,
	"how" text NOT NULL,
	CONSTRAINT "note_links_workspace_id_note_id_target_id_how_pk" PRIMARY KEY("workspace_id","note_id","target_id","how")
);
--> statement-breakpoint
CREATE TABLE "note_sources" (
	"workspace_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"note_id" uuid NOT NULL,
	"source_id" uuid NOT NULL,
	"place" integer NOT NULL,
	"file_id" uuid,
	"page" integer,
	"cited" text NOT NULL,
	"mark_id" uuid,
	CONSTRAINT "note_sources_workspace_id_note_id_source_id_pk" PRIMARY KEY("workspace_id","note_id","source_id")
);
--> statement-breakpoint
CREATE TABLE "notes" (
	"workspace_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"title" text NOT NULL,
	"text" jsonb NOT NULL,
	"event" text,
	"about" uuid[] NOT NULL,
	"tags" uuid[] NOT NULL,
	"origins" jsonb NOT NULL,
	"owner" uuid,
	"present" boolean DEFAULT false NOT NULL,
	"made_by" uuid NOT NULL,
	"made_at" timestamp with time zone DEFAULT now() NOT NULL,
	"changed_at" timestamp with time zone DEFAULT now() NOT NULL,
	"plain" text NOT NULL,
	"event_from" integer,
	"event_to" integer,
	"vector" "tsvector" NOT NULL,
	CONSTRAINT "notes_workspace_id_id_pk" PRIMARY KEY("workspace_id","id")
);
--> statement-breakpoint
CREATE INDEX "note_links_target" ON "note_links" USING btree ("workspace_id","target_id");--> statement-breakpoint
CREATE INDEX "note_sources_source" ON "note_sources" USING btree ("workspace_id","source_id");--> statement-breakpoint
CREATE INDEX "note_sources_id" ON "note_sources" USING btree ("workspace_id","id");--> statement-breakpoint
CREATE INDEX "notes_vector" ON "notes" USING gin ("vector");--> statement-breakpoint
CREATE INDEX "notes_about" ON "notes" USING gin ("about");