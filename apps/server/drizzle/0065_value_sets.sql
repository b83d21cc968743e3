CREATE TABLE "value_set" (
	"workspace_id" uuid NOT NULL,
	"key" text NOT NULL,
	"name" text NOT NULL,
	"values" jsonb NOT NULL,
	"changed_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "value_set_workspace_id_key_pk" PRIMARY KEY("workspace_id","key")
);
--> statement-breakpoint
CREATE UNIQUE INDEX "value_set_name" ON "value_set" USING btree ("workspace_id",lower("name"));--> statement-breakpoint
alter table value_set enable row level security;--> statement-breakpoint
create policy closed on value_set to haycart_server using (workspace_id = (select current_workspace()));--> statement-breakpoint
grant select, insert, update, delete on value_set to haycart_server;--> statement-breakpoint
create trigger revision after insert or delete or update on value_set for each statement execute function count_revision();
