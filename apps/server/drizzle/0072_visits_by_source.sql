ALTER TABLE "visit" ALTER COLUMN "source_id" SET NOT NULL;--> statement-breakpoint
ALTER TABLE "visit" DROP COLUMN "channel";--> statement-breakpoint
ALTER TABLE "visit" DROP COLUMN "source";--> statement-breakpoint
ALTER TABLE "visit" DROP COLUMN "medium";--> statement-breakpoint
ALTER TABLE "visit" DROP COLUMN "campaign";--> statement-breakpoint
ALTER TABLE "visit" DROP COLUMN "page";