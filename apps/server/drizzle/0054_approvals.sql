CREATE TABLE "hold_answer" (
	"workspace_id" uuid NOT NULL,
	"submission_id" uuid NOT NULL,
	"route_id" uuid NOT NULL,
	"hold" integer NOT NULL,
	"what" text NOT NULL,
	"approved" boolean NOT NULL,
	"note" text NOT NULL,
	"by" text NOT NULL,
	"at" timestamp with time zone NOT NULL,
	CONSTRAINT "hold_answer_workspace_id_submission_id_route_id_hold_pk" PRIMARY KEY("workspace_id","submission_id","route_id","hold")
);
--> statement-breakpoint
ALTER TABLE "run" drop column "waits_for";--> statement-breakpoint
ALTER TABLE "run" ADD COLUMN "waits_for" text GENERATED ALWAYS AS (case when outcome = 'failed' or (outcome = 'held' and unmapped is null and coalesce(reason_code, '') not in ('which-record', 'approval', 'confirmation')) then
    case when outcome = 'failed' then 'failed' when reason_code = 'route-paused' then 'paused' else 'held' end
      || '.' || md5(route_id::text || E'\n' || coalesce(reason_code, '') || E'\n' || summary) end) STORED;--> statement-breakpoint
ALTER TABLE "hold_answer" ADD CONSTRAINT "hold_answer_workspace_id_submission_id_submission_workspace_id_id_fk" FOREIGN KEY ("workspace_id","submission_id") REFERENCES "public"."submission"("workspace_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "hold_answer" ADD CONSTRAINT "hold_answer_workspace_id_route_id_route_workspace_id_id_fk" FOREIGN KEY ("workspace_id","route_id") REFERENCES "public"."route"("workspace_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "run_waits_for" ON "run" USING btree ("workspace_id","waits_for","finished_at") WHERE waits_for is not null;--> statement-breakpoint
alter table hold_answer enable row level security;--> statement-breakpoint
create policy closed on hold_answer to haycart_server using (workspace_id = (select current_workspace()));--> statement-breakpoint
grant select, insert, update on hold_answer to haycart_server;
