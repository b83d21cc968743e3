CREATE TABLE "earlier_run" (
	"workspace_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"submission_id" uuid NOT NULL,
	"route_id" uuid NOT NULL,
	"version" integer NOT NULL,
	"outcome" text NOT NULL,
	"reason_code" text,
	"summary" text NOT NULL,
	"plan" json,
	"started_at" timestamp with time zone NOT NULL,
	"finished_at" timestamp with time zone NOT NULL,
	"taken_back_by" uuid,
	CONSTRAINT "earlier_run_workspace_id_id_pk" PRIMARY KEY("workspace_id","id")
);
--> statement-breakpoint
ALTER TABLE "earlier_run" ADD CONSTRAINT "earlier_run_workspace_id_submission_id_submission_workspace_id_id_fk" FOREIGN KEY ("workspace_id","submission_id") REFERENCES "public"."submission"("workspace_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "earlier_run" ADD CONSTRAINT "earlier_run_workspace_id_route_id_version_route_version_workspace_id_route_id_version_fk" FOREIGN KEY ("workspace_id","route_id","version") REFERENCES "public"."route_version"("workspace_id","route_id","version") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "earlier_run_submission" ON "earlier_run" USING btree ("workspace_id","submission_id","route_id");--> statement-breakpoint
CREATE INDEX "earlier_run_taken_back" ON "earlier_run" USING btree ("workspace_id","taken_back_by") WHERE taken_back_by is not null;--> statement-breakpoint
create view any_run with (security_invoker = true) as
  select workspace_id, id, submission_id, route_id, version, outcome, reason_code, summary, plan, started_at, finished_at, taken_back_by from run
  union all
  select workspace_id, id, submission_id, route_id, version, outcome, reason_code, summary, plan, started_at, finished_at, taken_back_by from earlier_run;--> statement-breakpoint
alter table earlier_run enable row level security;--> statement-breakpoint
create policy closed on earlier_run to haycart_server using (workspace_id = (select current_workspace()));--> statement-breakpoint
grant select, insert on earlier_run to haycart_server;--> statement-breakpoint
grant select on any_run to haycart_server;
