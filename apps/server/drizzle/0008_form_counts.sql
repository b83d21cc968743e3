CREATE TABLE "form_count" (
	"workspace_id" uuid NOT NULL,
	"intake_id" uuid NOT NULL,
	"day" date NOT NULL,
	"version" integer NOT NULL,
	"page" text NOT NULL,
	"source" text NOT NULL,
	"device" text NOT NULL,
	"did" text NOT NULL,
	"item" text NOT NULL,
	"count" integer NOT NULL,
	"seconds" integer DEFAULT 0 NOT NULL,
	CONSTRAINT "form_count_workspace_id_intake_id_day_version_page_source_device_did_item_pk" PRIMARY KEY("workspace_id","intake_id","day","version","page","source","device","did","item")
);
--> statement-breakpoint
ALTER TABLE "form_count" ADD CONSTRAINT "form_count_workspace_id_intake_id_intake_workspace_id_id_fk" FOREIGN KEY ("workspace_id","intake_id") REFERENCES "public"."intake"("workspace_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
alter table form_count enable row level security;--> statement-breakpoint
create policy closed on form_count to haycart_server using (workspace_id = (select current_workspace()));--> statement-breakpoint
grant select, insert, update on form_count to haycart_server;
