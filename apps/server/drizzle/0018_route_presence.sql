CREATE TABLE "route_presence" (
	"workspace_id" uuid NOT NULL,
	"route_id" uuid NOT NULL,
	"person_id" uuid NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "route_presence_workspace_id_route_id_person_id_pk" PRIMARY KEY("workspace_id","route_id","person_id")
);
--> statement-breakpoint
ALTER TABLE "route_presence" ADD CONSTRAINT "route_presence_workspace_id_route_id_route_workspace_id_id_fk" FOREIGN KEY ("workspace_id","route_id") REFERENCES "public"."route"("workspace_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "route_presence" ADD CONSTRAINT "route_presence_workspace_id_person_id_person_workspace_id_id_fk" FOREIGN KEY ("workspace_id","person_id") REFERENCES "public"."person"("workspace_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
alter table route_presence enable row level security;--> statement-breakpoint
create policy closed on route_presence to haycart_server using (workspace_id = (select current_workspace()));--> statement-breakpoint
grant select, insert, update, delete on route_presence to haycart_server;
