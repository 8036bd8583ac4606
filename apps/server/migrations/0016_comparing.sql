CREATE TABLE "compare_queue" (
	"workspace_id" uuid NOT NULL,
	"source_id" uuid NOT NULL,
	"failures" integer DEFAULT 0 NOT NULL,
	"after" timestamp with time zone,
	CONSTRAINT "compare_queue_workspace_id_source_id_pk" PRIMARY KEY("workspace_id","source_id")
);
--> statement-breakpoint
CREATE TABLE "likely_pairs" (
	"workspace_id" uuid NOT NULL,
	"source_id" uuid NOT NULL,
	"other_id" uuid NOT NULL,
	"probability" real NOT NULL,
	"same_file" boolean NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "likely_pairs_workspace_id_source_id_other_id_pk" PRIMARY KEY("workspace_id","source_id","other_id")
);
--> statement-breakpoint
CREATE TABLE "source_meets" (
	"workspace_id" uuid NOT NULL,
	"source_id" uuid NOT NULL,
	"keys" integer[] NOT NULL,
	CONSTRAINT "source_meets_workspace_id_source_id_pk" PRIMARY KEY("workspace_id","source_id")
);
--> statement-breakpoint
CREATE INDEX "likely_pairs_other" ON "likely_pairs" USING btree ("workspace_id","other_id");--> statement-breakpoint
CREATE INDEX "source_meets_keys" ON "source_meets" USING gin ("keys") WITH (fastupdate=false);--> statement-breakpoint
CREATE INDEX "sources_merged" ON "sources" USING btree ("workspace_id","merged_into") WHERE merged_into is not null;--> statement-breakpoint
-- What is here is compared, and looked over by the rules that are new, by and by.
INSERT INTO "compare_queue" ("workspace_id", "source_id") SELECT "workspace_id", "id" FROM "sources" WHERE "presence" IN ('live', 'intake');
--> statement-breakpoint
UPDATE "source_sort" SET "findings" = NULL;
