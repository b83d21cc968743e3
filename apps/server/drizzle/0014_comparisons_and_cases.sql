CREATE TABLE "route_case" (
	"workspace_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"route_id" uuid NOT NULL,
	"name" text NOT NULL,
	"intake" text NOT NULL,
	"payload" jsonb NOT NULL,
	"visit" jsonb NOT NULL,
	"received_at" timestamp with time zone NOT NULL,
	"records" jsonb NOT NULL,
	"links" jsonb NOT NULL,
	"expected" jsonb NOT NULL,
	"saved_by" text NOT NULL,
	"saved_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "route_case_workspace_id_id_pk" PRIMARY KEY("workspace_id","id")
);
--> statement-breakpoint
CREATE TABLE "route_comparison" (
	"workspace_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"route_id" uuid NOT NULL,
	"before_name" text,
	"before_definition" jsonb,
	"after_name" text NOT NULL,
	"after_definition" jsonb NOT NULL,
	"since" timestamp with time zone NOT NULL,
	"before" timestamp with time zone NOT NULL,
	"most" integer NOT NULL,
	"state" text DEFAULT 'working' NOT NULL,
	"total" integer NOT NULL,
	"looked" integer DEFAULT 0 NOT NULL,
	"before_outcomes" jsonb,
	"after_outcomes" jsonb NOT NULL,
	"differ" integer DEFAULT 0 NOT NULL,
	"groups" jsonb DEFAULT '[]'::jsonb NOT NULL,
	"started_at" timestamp with time zone DEFAULT now() NOT NULL,
	"finished_at" timestamp with time zone,
	CONSTRAINT "route_comparison_workspace_id_id_pk" PRIMARY KEY("workspace_id","id"),
	CONSTRAINT "route_comparison_state" CHECK ("route_comparison"."state" in ('working', 'done', 'cancelled', 'failed'))
);
--> statement-breakpoint
ALTER TABLE "route_case" ADD CONSTRAINT "route_case_workspace_id_route_id_route_workspace_id_id_fk" FOREIGN KEY ("workspace_id","route_id") REFERENCES "public"."route"("workspace_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "route_comparison" ADD CONSTRAINT "route_comparison_workspace_id_route_id_route_workspace_id_id_fk" FOREIGN KEY ("workspace_id","route_id") REFERENCES "public"."route"("workspace_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "route_case_route" ON "route_case" USING btree ("workspace_id","route_id","saved_at");--> statement-breakpoint
CREATE INDEX "route_comparison_route" ON "route_comparison" USING btree ("workspace_id","route_id");--> statement-breakpoint
do $$ declare t text; begin
  foreach t in array array['route_comparison', 'route_case'] loop
    execute format('alter table %I enable row level security', t);
    execute format('create policy closed on %I to haycart_server using (workspace_id = (select current_workspace()))', t);
    execute format('grant select, insert, update, delete on %I to haycart_server', t);
  end loop;
end $$;
