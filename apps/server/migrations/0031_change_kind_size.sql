CREATE INDEX "change_subjects_change" ON "change_subjects" USING btree ("workspace_id","change_id");--> statement-breakpoint
ALTER TABLE "changes" ADD COLUMN "kind" text;--> statement-breakpoint
ALTER TABLE "changes" ADD COLUMN "size" integer;--> statement-breakpoint
ALTER TABLE "changes" ADD COLUMN "joined" uuid[] DEFAULT '{}' NOT NULL;--> statement-breakpoint
UPDATE "changes" c SET
  "kind" = CASE c."change"->>'do' WHEN 'rename' THEN 'collection-edit' ELSE c."change"->>'do' END,
  "size" = (SELECT count(*)::int FROM "change_subjects" s WHERE s."workspace_id" = c."workspace_id" AND s."change_id" = c."id" AND s."kind" = 'source');--> statement-breakpoint
ALTER TABLE "changes" ALTER COLUMN "kind" SET NOT NULL;--> statement-breakpoint
ALTER TABLE "changes" ALTER COLUMN "size" SET NOT NULL;
