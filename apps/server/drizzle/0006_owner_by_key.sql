ALTER TABLE "company" DROP COLUMN "owner_id";--> statement-breakpoint
ALTER TABLE "contact" DROP COLUMN "owner_id";--> statement-breakpoint
ALTER TABLE "deal" DROP COLUMN "owner_id";--> statement-breakpoint
ALTER TABLE "lead" DROP COLUMN "owner_id";