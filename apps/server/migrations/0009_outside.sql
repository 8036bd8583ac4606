CREATE TABLE "catalogues" (
	"workspace_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"name" text NOT NULL,
	"protocol" text NOT NULL,
	"address" text NOT NULL,
	"present" boolean DEFAULT true NOT NULL,
	"errors" jsonb DEFAULT '[]'::jsonb NOT NULL,
	"made_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "catalogues_workspace_id_id_pk" PRIMARY KEY("workspace_id","id")
);
--> statement-breakpoint
CREATE TABLE "outside_hits" (
	"workspace_id" uuid NOT NULL,
	"search_id" uuid NOT NULL,
	"ordinal" integer NOT NULL,
	"catalogue_id" uuid NOT NULL,
	"accession" text NOT NULL,
	"record" jsonb NOT NULL,
	"subjects" jsonb NOT NULL,
	"work" integer NOT NULL,
	"pdf" text,
	"is_new" boolean NOT NULL,
	"import_id" uuid,
	CONSTRAINT "outside_hits_workspace_id_search_id_ordinal_pk" PRIMARY KEY("workspace_id","search_id","ordinal")
);
--> statement-breakpoint
CREATE TABLE "outside_searches" (
	"workspace_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"question" jsonb NOT NULL,
	"why" text DEFAULT '' NOT NULL,
	"asked" jsonb NOT NULL,
	"watch_id" uuid,
	"made_by" uuid NOT NULL,
	"made_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "outside_searches_workspace_id_id_pk" PRIMARY KEY("workspace_id","id")
);
--> statement-breakpoint
CREATE TABLE "watches" (
	"workspace_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"name" text NOT NULL,
	"question" jsonb NOT NULL,
	"catalogues" jsonb NOT NULL,
	"every" text NOT NULL,
	"destination" jsonb,
	"next_at" timestamp with time zone NOT NULL,
	"ran_at" timestamp with time zone,
	"brought" integer DEFAULT 0 NOT NULL,
	"says" text DEFAULT '' NOT NULL,
	"failures" integer DEFAULT 0 NOT NULL,
	"paused" boolean DEFAULT false NOT NULL,
	"present" boolean DEFAULT true NOT NULL,
	"made_by" uuid NOT NULL,
	"made_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "watches_workspace_id_id_pk" PRIMARY KEY("workspace_id","id")
);
--> statement-breakpoint
CREATE INDEX "outside_hits_accession" ON "outside_hits" USING btree ("workspace_id","catalogue_id","accession");--> statement-breakpoint
CREATE INDEX "watches_due" ON "watches" USING btree ("next_at");