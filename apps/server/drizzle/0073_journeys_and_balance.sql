CREATE TABLE "journey_due" (
	"workspace_id" uuid NOT NULL,
	"id" bigint GENERATED ALWAYS AS IDENTITY (sequence name "journey_due_id_seq" INCREMENT BY 1 MINVALUE 1 MAXVALUE 9223372036854775807 START WITH 1 CACHE 1),
	"record_id" uuid NOT NULL,
	CONSTRAINT "journey_due_workspace_id_id_pk" PRIMARY KEY("workspace_id","id")
);
--> statement-breakpoint
CREATE TABLE "journey_step" (
	"workspace_id" uuid NOT NULL,
	"record_kind" text NOT NULL,
	"record_id" uuid NOT NULL,
	"basis" smallint NOT NULL,
	"to_basis" smallint NOT NULL,
	"back" integer NOT NULL,
	"of" integer NOT NULL,
	"level" smallint NOT NULL,
	"ago" integer NOT NULL,
	"source_id" integer,
	"visit_id" uuid,
	"at" timestamp with time zone,
	"made_at" timestamp with time zone NOT NULL,
	"won_at" timestamp with time zone,
	"amount" bigint,
	"currency" text,
	CONSTRAINT "journey_step_workspace_id_record_id_basis_back_pk" PRIMARY KEY("workspace_id","record_id","basis","back")
);
--> statement-breakpoint
CREATE TABLE "acknowledged_count" (
	"workspace_id" uuid NOT NULL,
	"id" uuid DEFAULT gen_random_uuid() NOT NULL,
	"day" date NOT NULL,
	"intake_id" uuid NOT NULL,
	"acknowledged" integer NOT NULL,
	"folded" boolean DEFAULT false NOT NULL,
	CONSTRAINT "acknowledged_count_workspace_id_id_pk" PRIMARY KEY("workspace_id","id")
);
--> statement-breakpoint
ALTER TABLE "acknowledged_count" ADD CONSTRAINT "acknowledged_count_workspace_id_intake_id_intake_workspace_id_id_fk" FOREIGN KEY ("workspace_id","intake_id") REFERENCES "public"."intake"("workspace_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "journey_step_made" ON "journey_step" USING btree ("workspace_id","record_kind","made_at");--> statement-breakpoint
CREATE INDEX "journey_step_won" ON "journey_step" USING btree ("workspace_id","record_kind","won_at") WHERE won_at is not null;--> statement-breakpoint
CREATE INDEX "acknowledged_count_day" ON "acknowledged_count" USING btree ("workspace_id","day");--> statement-breakpoint
CREATE INDEX "acknowledged_count_unfolded" ON "acknowledged_count" USING btree ("workspace_id","day") WHERE not folded;--> statement-breakpoint
alter table journey_step enable row level security;--> statement-breakpoint
create policy closed on journey_step to haycart_server using (workspace_id = (select current_workspace()));--> statement-breakpoint
grant select, insert, update, delete on journey_step to haycart_server;--> statement-breakpoint
alter table journey_due enable row level security;--> statement-breakpoint
create policy closed on journey_due to haycart_server using (workspace_id = (select current_workspace()));--> statement-breakpoint
grant select, insert, update, delete on journey_due to haycart_server;--> statement-breakpoint
-- What changes a record, or touches it, may change which touches led to it: each is noted in the transaction that does so.
create function journeys_of_changed() returns trigger language plpgsql as $$
begin
  insert into journey_due (workspace_id, record_id) select distinct workspace_id, record_id from written;
  return null;
end $$;--> statement-breakpoint
create trigger journeys after insert on record_change referencing new table as written
  for each statement execute function journeys_of_changed();--> statement-breakpoint
create trigger journeys after insert on touch referencing new table as written
  for each statement execute function journeys_of_changed();--> statement-breakpoint
-- Touches of a run that was taken back count no more, and those of one that is given back count again.
create function journeys_of_taken_back() returns trigger language plpgsql as $$
begin
  insert into journey_due (workspace_id, record_id)
    select t.workspace_id, t.record_id from run r
    join touch t on t.workspace_id = r.workspace_id and t.visit_id = r.submission_id
    where r.workspace_id = new.workspace_id and r.id = new.run_id;
  return null;
end $$;--> statement-breakpoint
create trigger journeys after update on attempt for each row
  when (old.taken_back_by is distinct from new.taken_back_by) execute function journeys_of_taken_back();--> statement-breakpoint
insert into journey_due (workspace_id, record_id)
  select workspace_id, id from contact union all select workspace_id, id from lead union all select workspace_id, id from deal;--> statement-breakpoint
alter table acknowledged_count enable row level security;--> statement-breakpoint
create policy closed on acknowledged_count to haycart_server using (workspace_id = (select current_workspace()));--> statement-breakpoint
grant select, insert, update, delete on acknowledged_count to haycart_server;--> statement-breakpoint
-- What arrived before was counted by nobody else: it begins as what is kept.
insert into acknowledged_count (workspace_id, day, intake_id, acknowledged, folded)
select s.workspace_id, (s.received_at at time zone 'utc')::date, s.intake_id, count(*), true
from submission s join intake i on i.workspace_id = s.workspace_id and i.id = s.intake_id group by 1, 2, 3;
