CREATE TABLE "run_count" (
	"workspace_id" uuid NOT NULL,
	"id" uuid DEFAULT gen_random_uuid() NOT NULL,
	"day" date NOT NULL,
	"intake_id" uuid NOT NULL,
	"route_id" uuid NOT NULL,
	"outcome" text NOT NULL,
	"runs" integer NOT NULL,
	"folded" boolean DEFAULT false NOT NULL,
	CONSTRAINT "run_count_workspace_id_id_pk" PRIMARY KEY("workspace_id","id")
);
--> statement-breakpoint
CREATE TABLE "arrival_count" (
	"workspace_id" uuid NOT NULL,
	"id" uuid DEFAULT gen_random_uuid() NOT NULL,
	"day" date NOT NULL,
	"intake_id" uuid NOT NULL,
	"arrivals" integer NOT NULL,
	"folded" boolean DEFAULT false NOT NULL,
	CONSTRAINT "arrival_count_workspace_id_id_pk" PRIMARY KEY("workspace_id","id")
);
--> statement-breakpoint
ALTER TABLE "submission" DROP CONSTRAINT "submission_state";--> statement-breakpoint
DROP INDEX "submission_set_aside";--> statement-breakpoint
DROP INDEX "run_unsettled";--> statement-breakpoint
ALTER TABLE "run_count" ADD CONSTRAINT "run_count_workspace_id_route_id_route_workspace_id_id_fk" FOREIGN KEY ("workspace_id","route_id") REFERENCES "public"."route"("workspace_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "arrival_count" ADD CONSTRAINT "arrival_count_workspace_id_intake_id_intake_workspace_id_id_fk" FOREIGN KEY ("workspace_id","intake_id") REFERENCES "public"."intake"("workspace_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "run_count_day" ON "run_count" USING btree ("workspace_id","day");--> statement-breakpoint
CREATE INDEX "run_count_unfolded" ON "run_count" USING btree ("workspace_id","day") WHERE not folded;--> statement-breakpoint
CREATE INDEX "arrival_count_day" ON "arrival_count" USING btree ("workspace_id","day");--> statement-breakpoint
CREATE INDEX "arrival_count_unfolded" ON "arrival_count" USING btree ("workspace_id","day") WHERE not folded;--> statement-breakpoint
CREATE INDEX "company_created" ON "company" USING btree ("workspace_id","created_at");--> statement-breakpoint
CREATE INDEX "contact_created" ON "contact" USING btree ("workspace_id","created_at");--> statement-breakpoint
CREATE INDEX "deal_stage_since" ON "deal" USING btree ("workspace_id","stage_since");--> statement-breakpoint
CREATE INDEX "submission_not_routed" ON "submission" USING btree ("workspace_id","state","received_at" DESC NULLS FIRST,"id" DESC NULLS FIRST) WHERE state <> 'routed';--> statement-breakpoint
CREATE INDEX "run_unsettled" ON "run" USING btree ("workspace_id","route_id","outcome") WHERE outcome <> 'written';--> statement-breakpoint
ALTER TABLE "submission" ADD CONSTRAINT "submission_state" CHECK ("submission"."state" in ('waiting', 'routed', 'unrouted', 'set-aside', 'cancelled'));--> statement-breakpoint
do $$ declare t text; begin
  foreach t in array array['run_count', 'arrival_count'] loop
    execute format('alter table %I enable row level security', t);
    execute format('create policy closed on %I to haycart_server using (workspace_id = (select current_workspace()))', t);
    execute format('grant select, insert, update, delete on %I to haycart_server', t);
  end loop;
end $$;--> statement-breakpoint
update submission s set state = 'unrouted'
where s.state = 'routed' and not exists (select 1 from run r where r.workspace_id = s.workspace_id and r.submission_id = s.id);--> statement-breakpoint
insert into run_count (workspace_id, day, intake_id, route_id, outcome, runs, folded)
select r.workspace_id, (s.received_at at time zone 'utc')::date, s.intake_id, r.route_id, r.outcome, count(*), true
from run r join submission s on s.workspace_id = r.workspace_id and s.id = r.submission_id group by 1, 2, 3, 4, 5;--> statement-breakpoint
-- What was found before is read anew, so that each is counted once.
truncate submission_search;--> statement-breakpoint
create function count_ended_runs() returns trigger language plpgsql as $$ begin
  insert into run_count (workspace_id, day, intake_id, route_id, outcome, runs)
  select r.workspace_id, (s.received_at at time zone 'utc')::date, s.intake_id, r.route_id, r.outcome, count(*)
  from new_rows r join submission s on s.workspace_id = r.workspace_id and s.id = r.submission_id group by 1, 2, 3, 4, 5;
  return null;
end $$;--> statement-breakpoint
create function count_changed_runs() returns trigger language plpgsql as $$ begin
  insert into run_count (workspace_id, day, intake_id, route_id, outcome, runs)
  select r.workspace_id, (s.received_at at time zone 'utc')::date, s.intake_id, r.route_id, r.outcome, sum(r.n) from (
    select n.workspace_id, n.submission_id, n.route_id, n.outcome, 1 as n from new_rows n
    union all select o.workspace_id, o.submission_id, o.route_id, o.outcome, -1 from old_rows o) r
  join submission s on s.workspace_id = r.workspace_id and s.id = r.submission_id group by 1, 2, 3, 4, 5 having sum(r.n) <> 0;
  return null;
end $$;--> statement-breakpoint
create trigger counted after insert on run referencing new table as new_rows for each statement execute function count_ended_runs();--> statement-breakpoint
create trigger recounted after update on run referencing new table as new_rows old table as old_rows for each statement execute function count_changed_runs();
