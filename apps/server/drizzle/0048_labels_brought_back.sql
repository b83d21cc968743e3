ALTER TABLE "contact_list" ADD COLUMN "retired_in" uuid;--> statement-breakpoint
ALTER TABLE "tag" ADD COLUMN "retired_in" uuid;