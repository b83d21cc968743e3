CREATE TABLE "submission_search" (
	"workspace_id" uuid NOT NULL,
	"submission_id" uuid NOT NULL,
	"who" text NOT NULL,
	"email" text NOT NULL,
	"words" "tsvector" NOT NULL,
	CONSTRAINT "submission_search_workspace_id_submission_id_pk" PRIMARY KEY("workspace_id","submission_id")
);
--> statement-breakpoint
ALTER TABLE "submission_search" ADD CONSTRAINT "submission_search_workspace_id_submission_id_submission_workspace_id_id_fk" FOREIGN KEY ("workspace_id","submission_id") REFERENCES "public"."submission"("workspace_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "submission_search_words" ON "submission_search" USING gin ("words");--> statement-breakpoint
CREATE INDEX "submission_search_who" ON "submission_search" USING btree ("workspace_id","who","submission_id");--> statement-breakpoint
CREATE INDEX "submission_search_email" ON "submission_search" USING btree ("workspace_id","email","submission_id");--> statement-breakpoint
CREATE INDEX "submission_set_aside" ON "submission" USING btree ("workspace_id","received_at" DESC NULLS FIRST,"id" DESC NULLS FIRST) WHERE state = 'set-aside';--> statement-breakpoint
alter table submission_search enable row level security;--> statement-breakpoint
create policy closed on submission_search to haycart_server using (workspace_id = (select current_workspace()));--> statement-breakpoint
grant select, insert, update, delete on submission_search to haycart_server;--> statement-breakpoint
-- Looking for words tells nothing of rows but by its answer; see docs/decisions/0006.
do $$ begin
  execute 'alter function ts_match_vq(tsvector, tsquery) leakproof';
exception when insufficient_privilege then
  raise notice 'Only a superuser may mark ts_match_vq leakproof; searching submissions takes longer.';
end $$;
