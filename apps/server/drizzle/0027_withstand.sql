CREATE TABLE "job_worker" (
	"id" text PRIMARY KEY NOT NULL,
	"host" text NOT NULL,
	"pid" integer NOT NULL,
	"seen_at" timestamp with time zone NOT NULL
);
--> statement-breakpoint
CREATE TABLE "file_usage" (
	"workspace_id" uuid NOT NULL,
	"intake_id" uuid NOT NULL,
	"bytes" bigint NOT NULL,
	CONSTRAINT "file_usage_workspace_id_intake_id_pk" PRIMARY KEY("workspace_id","intake_id")
);
--> statement-breakpoint
ALTER TABLE "recognition" ADD COLUMN "looked_transaction" "xid8";--> statement-breakpoint
ALTER TABLE "record_change" ADD COLUMN "transaction" "xid8" DEFAULT pg_current_xact_id() NOT NULL;--> statement-breakpoint
ALTER TABLE "file_usage" ADD CONSTRAINT "file_usage_workspace_id_intake_id_intake_workspace_id_id_fk" FOREIGN KEY ("workspace_id","intake_id") REFERENCES "public"."intake"("workspace_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "record_change_followed" ON "record_change" USING btree ("workspace_id","transaction","id");--> statement-breakpoint
-- What was looked at before stays looked at: what is here has this transaction's number, and its ids tell the rest.
UPDATE "recognition" SET "looked_transaction" = pg_current_xact_id() WHERE "looked_until" IS NOT NULL;--> statement-breakpoint
-- Files that no answer of their submission names, as to questions that were not shown, are nobody's.
DELETE FROM "submission_file" f USING "submission" s WHERE s.workspace_id = f.workspace_id AND s.id = f.submission_id
	AND position(convert_to(f.id::text, 'UTF8') in s.body) = 0;--> statement-breakpoint
INSERT INTO "file_usage" SELECT s.workspace_id, s.intake_id, sum(octet_length(f.bytes)) FROM "submission_file" f
	JOIN "submission" s ON s.workspace_id = f.workspace_id AND s.id = f.submission_id GROUP BY 1, 2;--> statement-breakpoint
alter table file_usage enable row level security;--> statement-breakpoint
create policy closed on file_usage to haycart_server using (workspace_id = (select current_workspace()));--> statement-breakpoint
grant select, insert, update, delete on file_usage to haycart_server;--> statement-breakpoint
alter table job_worker enable row level security;--> statement-breakpoint
-- Times that are compared are the database's.
create or replace function gate_session(session_hash text) returns table (workspace_id uuid, person_id uuid, expires_at timestamptz) language sql stable security definer set search_path = public as
  $$ select workspace_id, person_id, expires_at from session where hash = session_hash and expires_at > now() $$;--> statement-breakpoint
create function gate_job_worker_lives(worker text, on_host text, as_pid integer) returns void language sql volatile security definer set search_path = public as
  $$ insert into job_worker (id, host, pid, seen_at) values (worker, on_host, as_pid, now()) on conflict (id) do update set seen_at = now() $$;--> statement-breakpoint
create function gate_job_workers() returns table (id text, host text, pid integer, stale boolean) language sql stable security definer set search_path = public as
  $$ select id, host, pid, seen_at < now() - interval '30 seconds' from job_worker $$;--> statement-breakpoint
create function gate_job_workers_gone(workers text[]) returns void language sql volatile security definer set search_path = public as
  $$ delete from job_worker where id = any(workers) $$;--> statement-breakpoint
create function gate_migrations() returns integer language sql stable security definer set search_path = public as
  $$ select count(*)::integer from drizzle.__drizzle_migrations $$;--> statement-breakpoint
revoke all on function gate_job_worker_lives(text, text, integer), gate_job_workers(), gate_job_workers_gone(text[]), gate_migrations() from public;--> statement-breakpoint
grant execute on function gate_job_worker_lives(text, text, integer), gate_job_workers(), gate_job_workers_gone(text[]), gate_migrations() to haycart_server;
