CREATE TABLE "asked_here" (
	"workspace_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"member" uuid NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL,
	"words" text NOT NULL,
	"ask" jsonb NOT NULL,
	"found" integer NOT NULL,
	CONSTRAINT "asked_here_workspace_id_id_pk" PRIMARY KEY("workspace_id","id")
);
--> statement-breakpoint
CREATE TABLE "saved_watches" (
	"workspace_id" uuid NOT NULL,
	"saved" uuid NOT NULL,
	"member" uuid NOT NULL,
	"since" timestamp with time zone DEFAULT now() NOT NULL,
	"mail" boolean DEFAULT false NOT NULL,
	"says" text DEFAULT '' NOT NULL,
	"seen" integer[] DEFAULT '{}' NOT NULL,
	"told" integer[] DEFAULT '{}' NOT NULL,
	CONSTRAINT "saved_watches_workspace_id_saved_member_pk" PRIMARY KEY("workspace_id","saved","member")
);
--> statement-breakpoint
ALTER TABLE "members" ADD COLUMN "logs_asked" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "tags" ADD COLUMN "broader" uuid;--> statement-breakpoint
ALTER TABLE "collections" ADD COLUMN "allows" text;--> statement-breakpoint
ALTER TABLE "collections" ADD COLUMN "owner" uuid;