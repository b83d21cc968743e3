CREATE TABLE "asked" (
	"workspace_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"submission_id" uuid NOT NULL,
	"route_id" uuid NOT NULL,
	"hold" integer NOT NULL,
	"what" text NOT NULL,
	"address" text NOT NULL,
	"person_key" text,
	"hash" text,
	"open" boolean DEFAULT true NOT NULL,
	"asked_at" timestamp with time zone NOT NULL,
	"expires_at" timestamp with time zone NOT NULL,
	CONSTRAINT "asked_workspace_id_id_pk" PRIMARY KEY("workspace_id","id"),
	CONSTRAINT "asked_hash_unique" UNIQUE("hash"),
	CONSTRAINT "asked_once" UNIQUE("workspace_id","submission_id","route_id","hold","address"),
	CONSTRAINT "asked_what" CHECK ("asked"."what" in ('approval', 'confirmation'))
);
--> statement-breakpoint
ALTER TABLE "asked" ADD CONSTRAINT "asked_workspace_id_submission_id_submission_workspace_id_id_fk" FOREIGN KEY ("workspace_id","submission_id") REFERENCES "public"."submission"("workspace_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "asked" ADD CONSTRAINT "asked_workspace_id_route_id_route_workspace_id_id_fk" FOREIGN KEY ("workspace_id","route_id") REFERENCES "public"."route"("workspace_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "asked_of_address" ON "asked" USING btree ("workspace_id","address") WHERE open;--> statement-breakpoint
CREATE INDEX "asked_expires" ON "asked" USING btree ("workspace_id","expires_at") WHERE open;--> statement-breakpoint
alter table asked enable row level security;--> statement-breakpoint
create policy closed on asked to haycart_server using (workspace_id = (select current_workspace()));--> statement-breakpoint
grant select, insert, update on asked to haycart_server;--> statement-breakpoint
create function gate_asked(link_hash text) returns table (workspace_id uuid) language sql stable security definer set search_path = public as
  $$ select workspace_id from asked where hash = link_hash $$;--> statement-breakpoint
revoke all on function gate_asked(text) from public;--> statement-breakpoint
grant execute on function gate_asked(text) to haycart_server;
