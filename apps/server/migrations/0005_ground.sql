CREATE TABLE "change_subjects" (
	"workspace_id" uuid NOT NULL,
	"kind" text NOT NULL,
	"subject_id" uuid NOT NULL,
	"change_id" uuid NOT NULL,
	CONSTRAINT "change_subjects_workspace_id_kind_subject_id_change_id_pk" PRIMARY KEY("workspace_id","kind","subject_id","change_id")
);
--> statement-breakpoint
INSERT INTO "change_subjects" ("workspace_id", "kind", "subject_id", "change_id")
	SELECT "workspace_id", 'source', "source_id", "change_id" FROM "change_sources";--> statement-breakpoint
-- Of the other subjects only the change itself tells; those of several hold changes within them.
INSERT INTO "change_subjects" ("workspace_id", "kind", "subject_id", "change_id")
	WITH RECURSIVE parts AS (
		SELECT "workspace_id", "id", "change" AS c FROM "changes"
		UNION ALL SELECT p."workspace_id", p."id", part FROM parts p, jsonb_array_elements(p.c->'changes') part WHERE p.c->>'do' = 'all')
	SELECT DISTINCT p."workspace_id", k.kind, (p.c->>k.kind)::uuid, p."id" FROM parts p, (VALUES ('collection'), ('tag'), ('mark')) k(kind)
	WHERE p.c->>'do' IN ('tag', 'file', 'collection', 'placement', 'rename', 'mark', 'mark-edit') AND p.c ? k.kind;--> statement-breakpoint
DROP TABLE "change_sources";--> statement-breakpoint
CREATE TABLE "source_reading" (
	"workspace_id" uuid NOT NULL,
	"source_id" uuid NOT NULL,
	"user_id" uuid NOT NULL,
	"state" text NOT NULL,
	CONSTRAINT "source_reading_workspace_id_source_id_user_id_pk" PRIMARY KEY("workspace_id","source_id","user_id")
);
--> statement-breakpoint
CREATE TABLE "source_stars" (
	"workspace_id" uuid NOT NULL,
	"source_id" uuid NOT NULL,
	"user_id" uuid NOT NULL,
	CONSTRAINT "source_stars_workspace_id_source_id_user_id_pk" PRIMARY KEY("workspace_id","source_id","user_id")
);
--> statement-breakpoint
-- The reading state was everyone's: each member now has it as their own.
INSERT INTO "source_reading" ("workspace_id", "source_id", "user_id", "state")
	SELECT s."workspace_id", s."id", m."user_id", s."reading" FROM "sources" s JOIN "members" m ON m."workspace_id" = s."workspace_id" WHERE s."reading" IS NOT NULL;--> statement-breakpoint
ALTER TABLE "source_reading" ADD CONSTRAINT "source_reading_workspace_id_source_id_sources_workspace_id_id_fk" FOREIGN KEY ("workspace_id","source_id") REFERENCES "public"."sources"("workspace_id","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "source_stars" ADD CONSTRAINT "source_stars_workspace_id_source_id_sources_workspace_id_id_fk" FOREIGN KEY ("workspace_id","source_id") REFERENCES "public"."sources"("workspace_id","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "sources" DROP COLUMN "reading";--> statement-breakpoint
INSERT INTO "facets" ("workspace_id", "type", "key")
	SELECT DISTINCT "workspace_id", 'reading ' || "user_id", "state" FROM "source_reading";--> statement-breakpoint
UPDATE "source_facets" sf SET "ids" = kept.ids || own.ids
	FROM (SELECT x."workspace_id", x."source_id", coalesce(array_agg(i) FILTER (WHERE f."id" IS NULL), '{}') AS ids
		FROM "source_facets" x CROSS JOIN unnest(x."ids") i LEFT JOIN "facets" f ON f."id" = i AND f."type" = 'reading' GROUP BY 1, 2) kept
	LEFT JOIN LATERAL (SELECT coalesce(array_agg(f."id"), '{}') AS ids FROM "source_reading" r
		JOIN "facets" f ON f."workspace_id" = r."workspace_id" AND f."type" = 'reading ' || r."user_id" AND f."key" = r."state"
		WHERE r."workspace_id" = kept."workspace_id" AND r."source_id" = kept."source_id") own ON true
	WHERE sf."workspace_id" = kept."workspace_id" AND sf."source_id" = kept."source_id";--> statement-breakpoint
DELETE FROM "facets" WHERE "type" = 'reading';
