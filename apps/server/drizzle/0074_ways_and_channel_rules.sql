CREATE TABLE "source_change" (
	"workspace_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL,
	"person_id" uuid,
	"by" text NOT NULL,
	"kind" text NOT NULL,
	"text" text NOT NULL,
	"taken_back_by" text,
	"taken_back_at" timestamp with time zone,
	CONSTRAINT "source_change_workspace_id_id_pk" PRIMARY KEY("workspace_id","id")
);
--> statement-breakpoint
CREATE TABLE "source_change_part" (
	"workspace_id" uuid NOT NULL,
	"change_id" uuid NOT NULL,
	"from_source_id" integer NOT NULL,
	"to_source_id" integer NOT NULL,
	"visits" uuid[] NOT NULL,
	CONSTRAINT "source_change_part_workspace_id_change_id_from_source_id_to_source_id_pk" PRIMARY KEY("workspace_id","change_id","from_source_id","to_source_id")
);
--> statement-breakpoint
CREATE TABLE "channel_rules" (
	"workspace_id" uuid NOT NULL,
	"rules" jsonb NOT NULL,
	"names" jsonb NOT NULL,
	"changed_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "channel_rules_workspace_id_pk" PRIMARY KEY("workspace_id")
);
--> statement-breakpoint
CREATE TABLE "touch_way" (
	"workspace_id" uuid NOT NULL,
	"id" integer GENERATED ALWAYS AS IDENTITY (sequence name "touch_way_id_seq" INCREMENT BY 1 MINVALUE 1 MAXVALUE 2147483647 START WITH 1 CACHE 1),
	"way" jsonb NOT NULL,
	"digest" text GENERATED ALWAYS AS (md5(way::text)) STORED NOT NULL,
	CONSTRAINT "touch_way_workspace_id_id_pk" PRIMARY KEY("workspace_id","id")
);
--> statement-breakpoint
ALTER TABLE "intake" ADD COLUMN "source" jsonb DEFAULT '{}'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "visit" ADD COLUMN "way_id" integer;--> statement-breakpoint
ALTER TABLE "visit" ADD COLUMN "corrected" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "source_change" ADD CONSTRAINT "source_change_workspace_id_person_id_person_workspace_id_id_fk" FOREIGN KEY ("workspace_id","person_id") REFERENCES "public"."person"("workspace_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "source_change_part" ADD CONSTRAINT "source_change_part_workspace_id_change_id_source_change_workspace_id_id_fk" FOREIGN KEY ("workspace_id","change_id") REFERENCES "public"."source_change"("workspace_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "source_change_at" ON "source_change" USING btree ("workspace_id","at");--> statement-breakpoint
CREATE UNIQUE INDEX "touch_way_digest" ON "touch_way" USING btree ("workspace_id","digest");--> statement-breakpoint
ALTER TABLE "visit" ADD CONSTRAINT "visit_workspace_id_way_id_touch_way_workspace_id_id_fk" FOREIGN KEY ("workspace_id","way_id") REFERENCES "public"."touch_way"("workspace_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "visit_way" ON "visit" USING btree ("workspace_id","way_id");--> statement-breakpoint
alter table channel_rules enable row level security;--> statement-breakpoint
create policy closed on channel_rules to haycart_server using (workspace_id = (select current_workspace()));--> statement-breakpoint
grant select, insert, update, delete on channel_rules to haycart_server;--> statement-breakpoint
create trigger revision after insert or delete or update on channel_rules for each statement execute function count_revision();--> statement-breakpoint
alter table touch_way enable row level security;--> statement-breakpoint
create policy closed on touch_way to haycart_server using (workspace_id = (select current_workspace()));--> statement-breakpoint
grant select, insert, update on touch_way to haycart_server;--> statement-breakpoint
alter table source_change enable row level security;--> statement-breakpoint
create policy closed on source_change to haycart_server using (workspace_id = (select current_workspace()));--> statement-breakpoint
grant select, insert, update, delete on source_change to haycart_server;--> statement-breakpoint
alter table source_change_part enable row level security;--> statement-breakpoint
create policy closed on source_change_part to haycart_server using (workspace_id = (select current_workspace()));--> statement-breakpoint
grant select, insert, update, delete on source_change_part to haycart_server;--> statement-breakpoint
-- A visit that is said to come from another source may change which source led to what it touched.
create function journeys_of_moved() returns trigger language plpgsql as $$
begin
  insert into journey_due (workspace_id, record_id)
    select distinct t.workspace_id, t.record_id from visit_after a
    join visit_before b on b.workspace_id = a.workspace_id and b.id = a.id
    join touch t on t.workspace_id = a.workspace_id and t.visit_id = a.id where a.source_id <> b.source_id;
  return null;
end $$;--> statement-breakpoint
create trigger journeys after update on visit referencing old table as visit_before new table as visit_after
  for each statement execute function journeys_of_moved();
--> statement-breakpoint
grant update on visit to haycart_server;
