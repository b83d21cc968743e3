CREATE TABLE "counter" (
	"workspace_id" uuid NOT NULL,
	"name" text NOT NULL,
	"value" bigint DEFAULT 0 NOT NULL,
	CONSTRAINT "counter_workspace_id_name_pk" PRIMARY KEY("workspace_id","name")
);
--> statement-breakpoint
alter table counter enable row level security;--> statement-breakpoint
create policy closed on counter to haycart_server using (workspace_id = (select current_workspace()));--> statement-breakpoint
grant select, insert, update (value) on counter to haycart_server;
