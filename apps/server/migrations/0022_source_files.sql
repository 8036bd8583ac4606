ALTER TABLE "sources" ADD COLUMN "main_file" uuid;--> statement-breakpoint
ALTER TABLE "files" ADD COLUMN "address" text;