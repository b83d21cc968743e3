CREATE TABLE "outbox_pace" (
	"workspace_id" uuid NOT NULL,
	"lane" text NOT NULL,
	"next_at" timestamp with time zone NOT NULL,
	CONSTRAINT "outbox_pace_workspace_id_lane_pk" PRIMARY KEY("workspace_id","lane")
);
--> statement-breakpoint
ALTER TABLE "channel" ADD COLUMN "per_minute" integer;--> statement-breakpoint
ALTER TABLE "mail_server" ADD COLUMN "per_minute" integer;--> statement-breakpoint
alter table outbox_pace enable row level security;--> statement-breakpoint
create policy closed on outbox_pace to haycart_server using (workspace_id = (select current_workspace()));--> statement-breakpoint
grant select, insert, update on outbox_pace to haycart_server;
