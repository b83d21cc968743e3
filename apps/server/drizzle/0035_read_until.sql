CREATE TABLE "submission_reading" (
	"workspace_id" uuid NOT NULL,
	"until" uuid NOT NULL,
	CONSTRAINT "submission_reading_workspace_id_pk" PRIMARY KEY("workspace_id")
);
--> statement-breakpoint
alter table submission_reading enable row level security;--> statement-breakpoint
create policy closed on submission_reading to haycart_server using (workspace_id = (select current_workspace()));--> statement-breakpoint
grant select, insert, update, delete on submission_reading to haycart_server;
