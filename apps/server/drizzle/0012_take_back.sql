ALTER TABLE "run" ADD COLUMN "taken_back_by" uuid;--> statement-breakpoint
CREATE INDEX "run_taken_back" ON "run" USING btree ("workspace_id","taken_back_by") WHERE taken_back_by is not null;