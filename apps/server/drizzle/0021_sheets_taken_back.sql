DROP INDEX "sheet_file_intake";--> statement-breakpoint
DROP INDEX "sheet_file_reading";--> statement-breakpoint
ALTER TABLE "sheet_file" ADD COLUMN "sent_as" text;--> statement-breakpoint
ALTER TABLE "sheet_file" ADD COLUMN "taken_back" jsonb;--> statement-breakpoint
CREATE UNIQUE INDEX "sheet_file_arrival" ON "sheet_file" USING btree ("workspace_id","intake_id","at");--> statement-breakpoint
CREATE UNIQUE INDEX "sheet_file_sent_as" ON "sheet_file" USING btree ("workspace_id","sent_as") WHERE sent_as is not null;