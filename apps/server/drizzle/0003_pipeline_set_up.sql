CREATE TABLE "retired_place" (
	"workspace_id" uuid NOT NULL,
	"pipeline_key" text NOT NULL,
	"stage_key" text NOT NULL,
	CONSTRAINT "retired_place_workspace_id_pipeline_key_stage_key_pk" PRIMARY KEY("workspace_id","pipeline_key","stage_key")
);
--> statement-breakpoint
CREATE TABLE "set_up_change" (
	"workspace_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"by" text NOT NULL,
	"text" text NOT NULL,
	"removal" jsonb NOT NULL,
	"taken_back_at" timestamp with time zone,
	CONSTRAINT "set_up_change_workspace_id_id_pk" PRIMARY KEY("workspace_id","id")
);
--> statement-breakpoint
ALTER TABLE "pipeline" ADD COLUMN "default_stage" text;--> statement-breakpoint
ALTER TABLE "stage" ADD COLUMN "probability" integer;--> statement-breakpoint
ALTER TABLE "stage" ADD COLUMN "stuck_after" integer;--> statement-breakpoint
CREATE INDEX "set_up_change_at" ON "set_up_change" USING btree ("workspace_id","at");--> statement-breakpoint
ALTER TABLE "stage" ADD CONSTRAINT "stage_probability" CHECK ("stage"."probability" between 0 and 100);--> statement-breakpoint
ALTER TABLE "stage" ADD CONSTRAINT "stage_stuck_after" CHECK ("stage"."stuck_after" > 0);--> statement-breakpoint
do $$ declare t text; begin
  foreach t in array array['retired_place', 'set_up_change'] loop
    execute format('alter table %I enable row level security', t);
    execute format('create policy closed on %I to haycart_server using (workspace_id = (select current_workspace()))', t);
    execute format('grant select, insert, update, delete on %I to haycart_server', t);
  end loop;
end $$;
