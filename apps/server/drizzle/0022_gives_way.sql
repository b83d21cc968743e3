DROP INDEX "submission_waiting";--> statement-breakpoint
ALTER TABLE "submission" ADD COLUMN "gives_way" boolean DEFAULT false NOT NULL;--> statement-breakpoint
CREATE INDEX "submission_waiting" ON "submission" USING btree ("workspace_id","gives_way","due_at","id") WHERE state = 'waiting';--> statement-breakpoint
grant update (gives_way) on submission to haycart_server;
