ALTER TABLE "files" ADD COLUMN "released_at" timestamp with time zone;
--> statement-breakpoint
-- A text file in which a link stood was taken for the link: it is itself again.
UPDATE "files" SET "address" = NULL WHERE "address" IS NOT NULL AND "bytes" > 0;--> statement-breakpoint
UPDATE "files" SET "sha256" = 'link:' || encode(sha256(convert_to("address", 'UTF8')), 'hex') WHERE "address" IS NOT NULL;
