CREATE TABLE "audit" (
	"workspace_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL,
	"actor_kind" text NOT NULL,
	"actor_id" uuid NOT NULL,
	"actor" text NOT NULL,
	"command" text NOT NULL,
	"subject" text,
	"text" text NOT NULL,
	CONSTRAINT "audit_workspace_id_id_pk" PRIMARY KEY("workspace_id","id"),
	CONSTRAINT "audit_actor_kind" CHECK ("audit"."actor_kind" in ('person', 'token'))
);
--> statement-breakpoint
CREATE INDEX "audit_latest" ON "audit" USING btree ("workspace_id","at" DESC NULLS FIRST,"id" DESC NULLS FIRST);--> statement-breakpoint
CREATE INDEX "audit_of_actor" ON "audit" USING btree ("workspace_id","actor_id","at" DESC NULLS FIRST);--> statement-breakpoint
CREATE INDEX "audit_of_subject" ON "audit" USING btree ("workspace_id","subject","at" DESC NULLS FIRST);--> statement-breakpoint
alter table audit enable row level security;--> statement-breakpoint
create policy closed on audit to haycart_server using (workspace_id = (select current_workspace()));--> statement-breakpoint
-- A line stays as it was written.
grant select, insert on audit to haycart_server;
