CREATE TABLE "visit" (
	"workspace_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"channel" text NOT NULL,
	"source" text NOT NULL,
	"medium" text,
	"campaign" text,
	"page" text,
	CONSTRAINT "visit_workspace_id_id_pk" PRIMARY KEY("workspace_id","id")
);
--> statement-breakpoint
alter table visit enable row level security;--> statement-breakpoint
create policy closed on visit to haycart_server using (workspace_id = (select current_workspace()));--> statement-breakpoint
grant select, insert on visit to haycart_server;--> statement-breakpoint
-- A visit has the id of its submission; where a touch cannot be led back to one, its own.
alter table touch add column visit_id uuid;--> statement-breakpoint
update touch t set visit_id = coalesce(k.submission_id, t.id) from touch o
left join (
  select a.workspace_id, a.id, r.submission_id from attempt a join run r on r.workspace_id = a.workspace_id and r.id = a.run_id
) k on k.workspace_id = o.workspace_id and k.id = o.attempt_id
where o.workspace_id = t.workspace_id and o.id = t.id;--> statement-breakpoint
insert into visit (workspace_id, id, at, channel, source, medium, campaign, page)
select distinct on (workspace_id, visit_id) workspace_id, visit_id, at, channel, source, medium, campaign, page from touch
order by workspace_id, visit_id, id;--> statement-breakpoint
alter table touch alter column visit_id set not null;--> statement-breakpoint
ALTER TABLE "touch" ADD CONSTRAINT "touch_workspace_id_visit_id_visit_workspace_id_id_fk" FOREIGN KEY ("workspace_id","visit_id") REFERENCES "public"."visit"("workspace_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
-- Who entered it and which sheet it is a row of are how a submission came in, no part of a visit.
DROP INDEX "submission_entered";--> statement-breakpoint
ALTER TABLE "route_case" ADD COLUMN "origin" jsonb DEFAULT '{}'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "submission" ADD COLUMN "origin" jsonb DEFAULT '{}'::jsonb NOT NULL;--> statement-breakpoint
update submission set visit = visit - 'enteredBy' - 'sheet',
  origin = jsonb_strip_nulls(jsonb_build_object('enteredBy', visit -> 'enteredBy', 'sheet', visit -> 'sheet'))
where visit ?| array['enteredBy', 'sheet'];--> statement-breakpoint
update route_case set visit = visit - 'enteredBy' - 'sheet',
  origin = jsonb_strip_nulls(jsonb_build_object('enteredBy', visit -> 'enteredBy', 'sheet', visit -> 'sheet'))
where visit ?| array['enteredBy', 'sheet'];--> statement-breakpoint
CREATE INDEX "submission_entered" ON "submission" USING btree ("workspace_id","intake_id",(origin ->> 'enteredBy'),"received_at") WHERE origin ? 'enteredBy';
