-- The senses of marks become a short list of the workspace, so that each change to one is stored and can be undone.
INSERT INTO "entries" ("workspace_id", "id", "list", "value")
SELECT "workspace_id", "id", 'sense', jsonb_build_object('name', "name", 'owner', null, 'key', "key", 'colour', "colour", 'retired', false, 'into', null,
	'says', CASE "name"
		WHEN 'Claim' THEN 'What the author asserts, in the author’s own words.'
		WHEN 'Evidence' THEN 'What the assertion rests on: figures, documents, observations.'
		WHEN 'Method' THEN 'How it was found out, and with what limits.'
		WHEN 'Doubt' THEN 'What is to be checked, or contradicts something else.'
		ELSE '' END)
FROM "senses";--> statement-breakpoint
DROP TABLE "senses" CASCADE;--> statement-breakpoint
ALTER TABLE "files" ADD COLUMN "numbering" jsonb;--> statement-breakpoint
ALTER TABLE "files" ADD COLUMN "numbered_by_hand" jsonb;--> statement-breakpoint
ALTER TABLE "marks" ADD COLUMN "shape" text DEFAULT 'highlight' NOT NULL;--> statement-breakpoint
ALTER TABLE "marks" ADD COLUMN "owner" uuid;