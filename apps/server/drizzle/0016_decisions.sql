CREATE TABLE "decision" (
	"workspace_id" uuid NOT NULL,
	"id" text NOT NULL,
	"action" text NOT NULL,
	"by" text NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "decision_workspace_id_id_pk" PRIMARY KEY("workspace_id","id")
);
--> statement-breakpoint
ALTER TABLE "run" ADD COLUMN "unmapped" jsonb;--> statement-breakpoint
ALTER TABLE "intake_profile" ADD COLUMN "drift" jsonb DEFAULT '[]'::jsonb NOT NULL;--> statement-breakpoint
CREATE INDEX "run_unmapped" ON "run" USING btree ("workspace_id","route_id") WHERE unmapped is not null;--> statement-breakpoint
alter table decision enable row level security;--> statement-breakpoint
create policy closed on decision to haycart_server using (workspace_id = (select current_workspace()));--> statement-breakpoint
grant select, insert, update, delete on decision to haycart_server;--> statement-breakpoint
-- Profiles tell more of each field now: they are learnt anew, with the names that people gave.
update intake_profile set profile = '{"submissions":0,"fields":{},"beyond":0}', upto_at = '-infinity', upto_id = '00000000-0000-0000-0000-000000000000';
