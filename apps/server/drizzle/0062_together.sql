ALTER TABLE "channel" ADD COLUMN "time_zone" text;--> statement-breakpoint
ALTER TABLE "channel" ADD COLUMN "hours" jsonb DEFAULT '{}'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "outbox" ADD COLUMN "together" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "outbox" ADD COLUMN "sent_with" uuid;--> statement-breakpoint
ALTER TABLE "outbox" ADD CONSTRAINT "outbox_workspace_id_sent_with_outbox_workspace_id_id_fk" FOREIGN KEY ("workspace_id","sent_with") REFERENCES "public"."outbox"("workspace_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "outbox_together" ON "outbox" USING btree ("workspace_id","kind","target","due_at","id") WHERE together and state = 'waiting' and sent_with is null;--> statement-breakpoint
CREATE INDEX "outbox_sent_with" ON "outbox" USING btree ("workspace_id","sent_with") WHERE sent_with is not null;--> statement-breakpoint
grant update (sent_with) on outbox to haycart_server;
