CREATE TABLE "import_readings" (
	"workspace_id" uuid NOT NULL,
	"import_id" uuid NOT NULL,
	"ordinal" integer NOT NULL,
	"prepared" jsonb NOT NULL,
	CONSTRAINT "import_readings_workspace_id_import_id_ordinal_pk" PRIMARY KEY("workspace_id","import_id","ordinal")
);
--> statement-breakpoint
ALTER TABLE "jobs" ADD COLUMN "hold" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "source_origins" ADD COLUMN "tries" integer DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE "source_origins" ADD COLUMN "next_try" timestamp with time zone;--> statement-breakpoint
ALTER TABLE "watches" ADD COLUMN "kind" text DEFAULT 'search' NOT NULL;--> statement-breakpoint
ALTER TABLE "watches" ADD COLUMN "address" text;--> statement-breakpoint
ALTER TABLE "watches" ADD COLUMN "state" jsonb DEFAULT '{}'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "watches" ADD COLUMN "mail" boolean DEFAULT false NOT NULL;