CREATE TABLE "outbox" (
	"workspace_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"submission_id" uuid NOT NULL,
	"run_id" uuid NOT NULL,
	"attempt_id" uuid NOT NULL,
	"route_id" uuid NOT NULL,
	"kind" text NOT NULL,
	"target" text NOT NULL,
	"key" text NOT NULL,
	"body" json NOT NULL,
	"state" text DEFAULT 'waiting' NOT NULL,
	"taken_back" boolean DEFAULT false NOT NULL,
	"attempts" integer DEFAULT 0 NOT NULL,
	"tries" integer DEFAULT 0 NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"due_at" timestamp with time zone DEFAULT now() NOT NULL,
	"ended_at" timestamp with time zone,
	"last_error" text,
	"decision_id" text GENERATED ALWAYS AS (case when state = 'given-up' then 'undelivered.' || md5(route_id::text || E'\n' || kind || E'\n' || target) end) STORED,
	CONSTRAINT "outbox_workspace_id_id_pk" PRIMARY KEY("workspace_id","id"),
	CONSTRAINT "outbox_key" UNIQUE("workspace_id","key"),
	CONSTRAINT "outbox_state" CHECK ("outbox"."state" in ('waiting', 'done', 'given-up', 'cancelled'))
);
--> statement-breakpoint
CREATE TABLE "outbox_secret" (
	"workspace_id" uuid NOT NULL,
	"secret" text NOT NULL,
	"made_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "outbox_secret_workspace_id_pk" PRIMARY KEY("workspace_id")
);
--> statement-breakpoint
ALTER TABLE "outbox" ADD CONSTRAINT "outbox_workspace_id_submission_id_submission_workspace_id_id_fk" FOREIGN KEY ("workspace_id","submission_id") REFERENCES "public"."submission"("workspace_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "outbox" ADD CONSTRAINT "outbox_workspace_id_run_id_run_workspace_id_id_fk" FOREIGN KEY ("workspace_id","run_id") REFERENCES "public"."run"("workspace_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "outbox" ADD CONSTRAINT "outbox_workspace_id_attempt_id_attempt_workspace_id_id_fk" FOREIGN KEY ("workspace_id","attempt_id") REFERENCES "public"."attempt"("workspace_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "outbox" ADD CONSTRAINT "outbox_workspace_id_route_id_route_workspace_id_id_fk" FOREIGN KEY ("workspace_id","route_id") REFERENCES "public"."route"("workspace_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "outbox_due" ON "outbox" USING btree ("workspace_id","due_at") WHERE state = 'waiting';--> statement-breakpoint
CREATE INDEX "outbox_latest" ON "outbox" USING btree ("workspace_id","created_at" DESC NULLS FIRST,"id" DESC NULLS FIRST);--> statement-breakpoint
CREATE INDEX "outbox_state_latest" ON "outbox" USING btree ("workspace_id","state","created_at" DESC NULLS FIRST,"id" DESC NULLS FIRST);--> statement-breakpoint
CREATE INDEX "outbox_run" ON "outbox" USING btree ("workspace_id","run_id");--> statement-breakpoint
CREATE INDEX "outbox_attempt" ON "outbox" USING btree ("workspace_id","attempt_id");--> statement-breakpoint
CREATE INDEX "outbox_given_up" ON "outbox" USING btree ("workspace_id","decision_id","ended_at") WHERE decision_id is not null;--> statement-breakpoint
alter table outbox enable row level security;--> statement-breakpoint
create policy closed on outbox to haycart_server using (workspace_id = (select current_workspace()));--> statement-breakpoint
-- What is sent stays as it was put out; only how far it came changes.
grant select, insert, update (state, taken_back, attempts, tries, due_at, ended_at, last_error) on outbox to haycart_server;--> statement-breakpoint
alter table outbox_secret enable row level security;--> statement-breakpoint
create policy closed on outbox_secret to haycart_server using (workspace_id = (select current_workspace()));--> statement-breakpoint
grant select, insert, update on outbox_secret to haycart_server;--> statement-breakpoint
create function gate_workspaces_sending() returns table (id uuid) language sql stable security definer set search_path = public as
  $$ select w.id from workspace w
     where exists (select 1 from outbox o where o.workspace_id = w.id and o.state = 'waiting' and o.due_at <= now()) $$;--> statement-breakpoint
revoke all on function gate_workspaces_sending() from public;--> statement-breakpoint
grant execute on function gate_workspaces_sending() to haycart_server;
