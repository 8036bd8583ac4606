CREATE TABLE "gather_keys" (
	"workspace_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"user_id" uuid NOT NULL,
	"name" text NOT NULL,
	"key_hash" "bytea" NOT NULL,
	"made_at" timestamp with time zone DEFAULT now() NOT NULL,
	"used_at" timestamp with time zone,
	CONSTRAINT "gather_keys_workspace_id_id_pk" PRIMARY KEY("workspace_id","id"),
	CONSTRAINT "gather_keys_key_hash_unique" UNIQUE("key_hash")
);
