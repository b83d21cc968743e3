DROP INDEX "touch_record";--> statement-breakpoint
CREATE INDEX "touch_record" ON "touch" USING btree ("workspace_id","record_id");--> statement-breakpoint
ALTER TABLE "touch" DROP COLUMN "at";--> statement-breakpoint
ALTER TABLE "touch" DROP COLUMN "channel";--> statement-breakpoint
ALTER TABLE "touch" DROP COLUMN "source";--> statement-breakpoint
ALTER TABLE "touch" DROP COLUMN "medium";--> statement-breakpoint
ALTER TABLE "touch" DROP COLUMN "campaign";--> statement-breakpoint
ALTER TABLE "touch" DROP COLUMN "page";