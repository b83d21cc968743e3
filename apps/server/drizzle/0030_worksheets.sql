ALTER TABLE "sheet_file" ADD COLUMN "worksheet" text;--> statement-breakpoint
ALTER TABLE "sheet_file" ADD COLUMN "left_out" jsonb;