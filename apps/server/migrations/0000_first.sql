CREATE TABLE "change_sources" (
	"workspace_id" uuid NOT NULL,
	"source_id" uuid NOT NULL,
	"change_id" uuid NOT NULL,
	CONSTRAINT "change_sources_workspace_id_source_id_change_id_pk" PRIMARY KEY("workspace_id","source_id","change_id")
);
--> statement-breakpoint
CREATE TABLE "changes" (
	"workspace_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"actor_id" uuid NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL,
	"change" jsonb NOT NULL,
	"says" text NOT NULL,
	"undoes" uuid,
	"undone_by" uuid,
	CONSTRAINT "changes_workspace_id_id_pk" PRIMARY KEY("workspace_id","id")
);
--> statement-breakpoint
CREATE TABLE "collection_ancestors" (
	"workspace_id" uuid NOT NULL,
	"collection_id" uuid NOT NULL,
	"ancestor_id" uuid NOT NULL,
	CONSTRAINT "collection_ancestors_workspace_id_collection_id_ancestor_id_pk" PRIMARY KEY("workspace_id","collection_id","ancestor_id")
);
--> statement-breakpoint
CREATE TABLE "collection_sources" (
	"workspace_id" uuid NOT NULL,
	"collection_id" uuid NOT NULL,
	"source_id" uuid NOT NULL,
	CONSTRAINT "collection_sources_workspace_id_collection_id_source_id_pk" PRIMARY KEY("workspace_id","collection_id","source_id")
);
--> statement-breakpoint
CREATE TABLE "collections" (
	"workspace_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"name" text NOT NULL,
	"present" boolean DEFAULT true NOT NULL,
	CONSTRAINT "collections_workspace_id_id_pk" PRIMARY KEY("workspace_id","id")
);
--> statement-breakpoint
CREATE TABLE "facets" (
	"id" integer PRIMARY KEY GENERATED ALWAYS AS IDENTITY (sequence name "facets_id_seq" INCREMENT BY 1 MINVALUE 1 MAXVALUE 2147483647 START WITH 1 CACHE 1),
	"workspace_id" uuid NOT NULL,
	"type" text NOT NULL,
	"key" text NOT NULL
);
--> statement-breakpoint
CREATE TABLE "files" (
	"workspace_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"sha256" text NOT NULL,
	"name" text NOT NULL,
	"bytes" bigint NOT NULL,
	"media_type" text NOT NULL,
	"state" text NOT NULL,
	"pages" integer DEFAULT 0 NOT NULL,
	CONSTRAINT "files_workspace_id_id_pk" PRIMARY KEY("workspace_id","id")
);
--> statement-breakpoint
CREATE TABLE "import_messages" (
	"workspace_id" uuid NOT NULL,
	"import_id" uuid NOT NULL,
	"ordinal" integer NOT NULL,
	"message" jsonb NOT NULL,
	CONSTRAINT "import_messages_workspace_id_import_id_ordinal_pk" PRIMARY KEY("workspace_id","import_id","ordinal")
);
--> statement-breakpoint
CREATE TABLE "imports" (
	"workspace_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"job_id" uuid NOT NULL,
	"title" text NOT NULL,
	"collection_id" uuid,
	"inputs" jsonb NOT NULL,
	"report" jsonb,
	"change_id" uuid,
	"made_by" uuid NOT NULL,
	"made_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "imports_workspace_id_id_pk" PRIMARY KEY("workspace_id","id")
);
--> statement-breakpoint
CREATE TABLE "index_queue" (
	"workspace_id" uuid NOT NULL,
	"source_id" uuid NOT NULL,
	CONSTRAINT "index_queue_workspace_id_source_id_pk" PRIMARY KEY("workspace_id","source_id")
);
--> statement-breakpoint
CREATE TABLE "jobs" (
	"workspace_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"kind" text NOT NULL,
	"title" text NOT NULL,
	"state" text DEFAULT 'waiting' NOT NULL,
	"done" integer DEFAULT 0 NOT NULL,
	"total" integer DEFAULT 0 NOT NULL,
	"says" text DEFAULT '' NOT NULL,
	"cancel" boolean DEFAULT false NOT NULL,
	"made_by" uuid NOT NULL,
	"made_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "jobs_workspace_id_id_pk" PRIMARY KEY("workspace_id","id")
);
--> statement-breakpoint
CREATE TABLE "marks" (
	"workspace_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"source_id" uuid NOT NULL,
	"file_id" uuid NOT NULL,
	"page" integer NOT NULL,
	"sense_id" uuid NOT NULL,
	"quote" jsonb NOT NULL,
	"rects" jsonb NOT NULL,
	"gloss" text DEFAULT '' NOT NULL,
	"present" boolean DEFAULT true NOT NULL,
	"made_by" uuid NOT NULL,
	"made_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "marks_workspace_id_id_pk" PRIMARY KEY("workspace_id","id")
);
--> statement-breakpoint
CREATE TABLE "members" (
	"workspace_id" uuid NOT NULL,
	"user_id" uuid NOT NULL,
	"role" text NOT NULL,
	CONSTRAINT "members_workspace_id_user_id_pk" PRIMARY KEY("workspace_id","user_id")
);
--> statement-breakpoint
CREATE TABLE "page_text" (
	"workspace_id" uuid NOT NULL,
	"file_id" uuid NOT NULL,
	"number" integer NOT NULL,
	"vector" "tsvector" NOT NULL,
	CONSTRAINT "page_text_workspace_id_file_id_number_pk" PRIMARY KEY("workspace_id","file_id","number")
);
--> statement-breakpoint
CREATE TABLE "pages" (
	"workspace_id" uuid NOT NULL,
	"file_id" uuid NOT NULL,
	"number" integer NOT NULL,
	"width" real NOT NULL,
	"height" real NOT NULL,
	"text" text NOT NULL,
	"words" "bytea" NOT NULL,
	CONSTRAINT "pages_workspace_id_file_id_number_pk" PRIMARY KEY("workspace_id","file_id","number")
);
--> statement-breakpoint
CREATE TABLE "placements" (
	"workspace_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"collection_id" uuid NOT NULL,
	"parent_id" uuid,
	"present" boolean DEFAULT true NOT NULL,
	CONSTRAINT "placements_workspace_id_id_pk" PRIMARY KEY("workspace_id","id")
);
--> statement-breakpoint
CREATE TABLE "senses" (
	"workspace_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"name" text NOT NULL,
	"key" integer NOT NULL,
	"colour" text NOT NULL,
	CONSTRAINT "senses_workspace_id_id_pk" PRIMARY KEY("workspace_id","id")
);
--> statement-breakpoint
CREATE TABLE "sessions" (
	"token_hash" "bytea" PRIMARY KEY NOT NULL,
	"user_id" uuid NOT NULL,
	"csrf" text NOT NULL,
	"expires_at" timestamp with time zone NOT NULL
);
--> statement-breakpoint
CREATE TABLE "sign_in_attempts" (
	"who" text NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "source_facets" (
	"workspace_id" uuid NOT NULL,
	"source_id" uuid NOT NULL,
	"ids" integer[] NOT NULL,
	CONSTRAINT "source_facets_workspace_id_source_id_pk" PRIMARY KEY("workspace_id","source_id")
);
--> statement-breakpoint
CREATE TABLE "source_files" (
	"workspace_id" uuid NOT NULL,
	"source_id" uuid NOT NULL,
	"file_id" uuid NOT NULL,
	CONSTRAINT "source_files_workspace_id_source_id_file_id_pk" PRIMARY KEY("workspace_id","source_id","file_id")
);
--> statement-breakpoint
CREATE TABLE "source_keys" (
	"workspace_id" uuid NOT NULL,
	"key" text NOT NULL,
	"source_id" uuid NOT NULL,
	CONSTRAINT "source_keys_workspace_id_key_source_id_pk" PRIMARY KEY("workspace_id","key","source_id")
);
--> statement-breakpoint
CREATE TABLE "source_sort" (
	"workspace_id" uuid NOT NULL,
	"source_id" uuid NOT NULL,
	"presence" text NOT NULL,
	"title" text NOT NULL,
	"author" text NOT NULL,
	"container" text NOT NULL,
	"kind" text NOT NULL,
	"year" integer,
	"people" text[] DEFAULT '{}' NOT NULL,
	"added" timestamp with time zone NOT NULL,
	"changed" timestamp with time zone NOT NULL,
	CONSTRAINT "source_sort_workspace_id_source_id_pk" PRIMARY KEY("workspace_id","source_id")
);
--> statement-breakpoint
CREATE TABLE "source_tags" (
	"workspace_id" uuid NOT NULL,
	"source_id" uuid NOT NULL,
	"tag_id" uuid NOT NULL,
	CONSTRAINT "source_tags_workspace_id_source_id_tag_id_pk" PRIMARY KEY("workspace_id","source_id","tag_id")
);
--> statement-breakpoint
CREATE TABLE "source_text" (
	"workspace_id" uuid NOT NULL,
	"source_id" uuid NOT NULL,
	"vector" "tsvector" NOT NULL,
	CONSTRAINT "source_text_workspace_id_source_id_pk" PRIMARY KEY("workspace_id","source_id")
);
--> statement-breakpoint
CREATE TABLE "sources" (
	"workspace_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"record" jsonb NOT NULL,
	"provenance" jsonb DEFAULT '{}'::jsonb NOT NULL,
	"presence" text DEFAULT 'live' NOT NULL,
	"reading" text,
	"version" integer DEFAULT 1 NOT NULL,
	"added_at" timestamp with time zone DEFAULT now() NOT NULL,
	"changed_at" timestamp with time zone DEFAULT now() NOT NULL,
	"added_by" uuid NOT NULL,
	"import_id" uuid,
	CONSTRAINT "sources_workspace_id_id_pk" PRIMARY KEY("workspace_id","id")
);
--> statement-breakpoint
CREATE TABLE "tags" (
	"workspace_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"name" text NOT NULL,
	"subject" boolean NOT NULL,
	CONSTRAINT "tags_workspace_id_id_pk" PRIMARY KEY("workspace_id","id")
);
--> statement-breakpoint
CREATE TABLE "users" (
	"id" uuid PRIMARY KEY NOT NULL,
	"email" text NOT NULL,
	"name" text NOT NULL,
	"password_hash" text NOT NULL,
	CONSTRAINT "users_email_unique" UNIQUE("email")
);
--> statement-breakpoint
CREATE TABLE "workspaces" (
	"id" uuid PRIMARY KEY NOT NULL,
	"number" integer GENERATED ALWAYS AS IDENTITY (sequence name "workspaces_number_seq" INCREMENT BY 1 MINVALUE 1 MAXVALUE 2147483647 START WITH 1 CACHE 1),
	"name" text NOT NULL
);
--> statement-breakpoint
ALTER TABLE "members" ADD CONSTRAINT "members_workspace_id_workspaces_id_fk" FOREIGN KEY ("workspace_id") REFERENCES "public"."workspaces"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "members" ADD CONSTRAINT "members_user_id_users_id_fk" FOREIGN KEY ("user_id") REFERENCES "public"."users"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "sessions" ADD CONSTRAINT "sessions_user_id_users_id_fk" FOREIGN KEY ("user_id") REFERENCES "public"."users"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "changes_actor" ON "changes" USING btree ("workspace_id","actor_id","id");--> statement-breakpoint
CREATE INDEX "collection_sources_source" ON "collection_sources" USING btree ("workspace_id","source_id");--> statement-breakpoint
CREATE UNIQUE INDEX "facets_key" ON "facets" USING btree ("workspace_id","type","key");--> statement-breakpoint
CREATE UNIQUE INDEX "files_sha" ON "files" USING btree ("workspace_id","sha256");--> statement-breakpoint
CREATE INDEX "imports_job" ON "imports" USING btree ("workspace_id","job_id");--> statement-breakpoint
CREATE INDEX "marks_file" ON "marks" USING btree ("workspace_id","file_id");--> statement-breakpoint
CREATE INDEX "marks_source" ON "marks" USING btree ("workspace_id","source_id");--> statement-breakpoint
CREATE INDEX "members_user" ON "members" USING btree ("user_id");--> statement-breakpoint
CREATE INDEX "page_text_vector" ON "page_text" USING gin ("vector");--> statement-breakpoint
CREATE INDEX "sign_in_attempts_who" ON "sign_in_attempts" USING btree ("who","at");--> statement-breakpoint
CREATE INDEX "source_facets_ids" ON "source_facets" USING gin ("ids");--> statement-breakpoint
CREATE INDEX "source_files_file" ON "source_files" USING btree ("workspace_id","file_id");--> statement-breakpoint
CREATE INDEX "source_keys_source" ON "source_keys" USING btree ("workspace_id","source_id");--> statement-breakpoint
CREATE INDEX "source_sort_title" ON "source_sort" USING btree ("workspace_id","presence","title","source_id");--> statement-breakpoint
CREATE INDEX "source_sort_author" ON "source_sort" USING btree ("workspace_id","presence","author","source_id");--> statement-breakpoint
CREATE INDEX "source_sort_year" ON "source_sort" USING btree ("workspace_id","presence","year","source_id");--> statement-breakpoint
CREATE INDEX "source_sort_added" ON "source_sort" USING btree ("workspace_id","presence","added","source_id");--> statement-breakpoint
CREATE INDEX "source_tags_tag" ON "source_tags" USING btree ("workspace_id","tag_id");--> statement-breakpoint
CREATE INDEX "source_text_vector" ON "source_text" USING gin ("vector");--> statement-breakpoint
CREATE UNIQUE INDEX "tags_name" ON "tags" USING btree ("workspace_id","subject",lower("name"));--> statement-breakpoint
CREATE COLLATION "pandecta" (provider = icu, locale = 'und-u-kn-true');--> statement-breakpoint
ALTER TABLE "source_sort" ALTER COLUMN "title" TYPE text COLLATE "pandecta";--> statement-breakpoint
ALTER TABLE "source_sort" ALTER COLUMN "author" TYPE text COLLATE "pandecta";--> statement-breakpoint
ALTER TABLE "source_sort" ALTER COLUMN "container" TYPE text COLLATE "pandecta";--> statement-breakpoint
ALTER TABLE "source_text" SET (toast_tuple_target = 128);--> statement-breakpoint
ALTER TABLE "page_text" SET (toast_tuple_target = 128);--> statement-breakpoint
ALTER TABLE "source_facets" SET (fillfactor = 85);
