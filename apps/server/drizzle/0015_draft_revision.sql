ALTER TABLE "route" ADD COLUMN "draft_saved_by" text;--> statement-breakpoint
ALTER TABLE "route" ADD COLUMN "draft_revision" integer DEFAULT 0 NOT NULL;