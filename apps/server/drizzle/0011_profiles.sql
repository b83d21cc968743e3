CREATE TABLE "intake_profile" (
	"workspace_id" uuid NOT NULL,
	"intake_id" uuid NOT NULL,
	"profile" json NOT NULL,
	"upto_at" timestamp with time zone NOT NULL,
	"upto_id" uuid NOT NULL,
	"names" jsonb DEFAULT '{}'::jsonb NOT NULL,
	CONSTRAINT "intake_profile_workspace_id_intake_id_pk" PRIMARY KEY("workspace_id","intake_id")
);
--> statement-breakpoint
ALTER TABLE "intake_profile" ADD CONSTRAINT "intake_profile_workspace_id_intake_id_intake_workspace_id_id_fk" FOREIGN KEY ("workspace_id","intake_id") REFERENCES "public"."intake"("workspace_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
alter table intake_profile enable row level security;--> statement-breakpoint
create policy closed on intake_profile to haycart_server using (workspace_id = (select current_workspace()));--> statement-breakpoint
grant select, insert, update, delete on intake_profile to haycart_server;
