CREATE TABLE "attempt" (
	"workspace_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"run_id" uuid NOT NULL,
	"why" text NOT NULL,
	"version" integer NOT NULL,
	"outcome" text NOT NULL,
	"reason_code" text,
	"summary" text NOT NULL,
	"plan" json,
	"started_at" timestamp with time zone NOT NULL,
	"finished_at" timestamp with time zone NOT NULL,
	"edit_id" uuid,
	"taken_back_by" uuid,
	CONSTRAINT "attempt_workspace_id_id_pk" PRIMARY KEY("workspace_id","id"),
	CONSTRAINT "attempt_why" CHECK ("attempt"."why" in ('arrival', 'again', 'fill-in')),
	CONSTRAINT "attempt_outcome" CHECK ("attempt"."outcome" in ('written', 'held', 'skipped', 'failed'))
);
--> statement-breakpoint
insert into attempt (workspace_id, id, run_id, why, version, outcome, reason_code, summary, plan, started_at, finished_at, taken_back_by)
select r.workspace_id, r.id, r.id,
  case when exists (select 1 from earlier_run e where e.workspace_id = r.workspace_id and e.submission_id = r.submission_id and e.route_id = r.route_id) then 'again' else 'arrival' end,
  r.version, case r.outcome when 'taken-back' then 'written' else r.outcome end, r.reason_code, r.summary, r.plan, r.started_at, r.finished_at, r.taken_back_by
from run r;--> statement-breakpoint
insert into attempt (workspace_id, id, run_id, why, version, outcome, reason_code, summary, plan, started_at, finished_at, taken_back_by)
select e.workspace_id, e.id, r.id, case when row_number() over (partition by r.id order by e.id) = 1 then 'arrival' else 'again' end,
  e.version, case e.outcome when 'taken-back' then 'written' else e.outcome end, e.reason_code, e.summary, e.plan, e.started_at, e.finished_at, e.taken_back_by
from earlier_run e join run r on r.workspace_id = e.workspace_id and r.submission_id = e.submission_id and r.route_id = e.route_id;--> statement-breakpoint
drop view any_run;--> statement-breakpoint
DROP TABLE "earlier_run";--> statement-breakpoint
ALTER TABLE "touch" RENAME COLUMN "run_id" TO "attempt_id";--> statement-breakpoint
DROP INDEX "run_taken_back";--> statement-breakpoint
alter table run add column attempt_id uuid;--> statement-breakpoint
alter table run disable trigger user;--> statement-breakpoint
-- Before the table is written anew, so that what each row refers to is not looked up again.
update run set attempt_id = id;--> statement-breakpoint
alter table run enable trigger user;--> statement-breakpoint
alter table run alter column attempt_id set not null, drop column plan, drop column taken_back_by,
  add column waits_for text generated always as (case when outcome = 'failed' or (outcome = 'held' and unmapped is null and reason_code is distinct from 'which-record') then
    case when outcome = 'failed' then 'failed' when reason_code = 'route-paused' then 'paused' else 'held' end
      || '.' || md5(route_id::text || E'\n' || coalesce(reason_code, '') || E'\n' || summary) end) stored;--> statement-breakpoint
ALTER TABLE "attempt" ADD CONSTRAINT "attempt_workspace_id_run_id_run_workspace_id_id_fk" FOREIGN KEY ("workspace_id","run_id") REFERENCES "public"."run"("workspace_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "attempt_further" ON "attempt" USING btree ("workspace_id","run_id") WHERE id <> run_id;--> statement-breakpoint
CREATE INDEX "attempt_taken_back" ON "attempt" USING btree ("workspace_id","taken_back_by") WHERE taken_back_by is not null;--> statement-breakpoint
CREATE INDEX "run_waits_for" ON "run" USING btree ("workspace_id","waits_for","finished_at") WHERE waits_for is not null;--> statement-breakpoint
-- What other areas may know of the cause of a change.
create view run_attempt with (security_invoker = true) as
  select a.workspace_id, a.id, a.run_id, r.submission_id, r.route_id, a.version, a.plan, a.taken_back_by
  from attempt a join run r on r.workspace_id = a.workspace_id and r.id = a.run_id;--> statement-breakpoint
alter table attempt enable row level security;--> statement-breakpoint
create policy closed on attempt to haycart_server using (workspace_id = (select current_workspace()));--> statement-breakpoint
grant select, insert on attempt to haycart_server;--> statement-breakpoint
grant update (taken_back_by) on attempt to haycart_server;--> statement-breakpoint
grant select on run_attempt to haycart_server;
