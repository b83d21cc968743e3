DROP INDEX "visit_at";--> statement-breakpoint
ALTER TABLE "visit" ADD COLUMN "earlier" boolean DEFAULT false NOT NULL;--> statement-breakpoint
CREATE INDEX "visit_at" ON "visit" USING btree ("workspace_id","at","source_id","earlier");