CREATE TABLE "touch_source" (
	"workspace_id" uuid NOT NULL,
	"id" integer GENERATED ALWAYS AS IDENTITY (sequence name "touch_source_id_seq" INCREMENT BY 1 MINVALUE 1 MAXVALUE 2147483647 START WITH 1 CACHE 1),
	"channel" text NOT NULL,
	"source" text NOT NULL,
	"medium" text,
	"campaign" text,
	"page" text,
	"digest" text GENERATED ALWAYS AS (md5(channel || chr(31) || source || chr(31) || coalesce(medium, chr(30)) || chr(31) || coalesce(campaign, chr(30)) || chr(31) || coalesce(page, chr(30)))) STORED NOT NULL,
	CONSTRAINT "touch_source_workspace_id_id_pk" PRIMARY KEY("workspace_id","id")
);
--> statement-breakpoint
ALTER TABLE "visit" ADD COLUMN "source_id" integer;--> statement-breakpoint
CREATE UNIQUE INDEX "touch_source_digest" ON "touch_source" USING btree ("workspace_id","digest");--> statement-breakpoint
ALTER TABLE "visit" ADD CONSTRAINT "visit_workspace_id_source_id_touch_source_workspace_id_id_fk" FOREIGN KEY ("workspace_id","source_id") REFERENCES "public"."touch_source"("workspace_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "touch_visit" ON "touch" USING btree ("workspace_id","visit_id");--> statement-breakpoint
CREATE INDEX "visit_at" ON "visit" USING btree ("workspace_id","at","source_id");--> statement-breakpoint
insert into touch_source (workspace_id, channel, source, medium, campaign, page)
  select distinct workspace_id, channel, source, medium, campaign, nullif(split_part(split_part(page, '?', 1), '#', 1), '') from visit;--> statement-breakpoint
update visit v set source_id = s.id from touch_source s
  where s.workspace_id = v.workspace_id and s.digest = md5(v.channel || chr(31) || v.source || chr(31) || coalesce(v.medium, chr(30)) || chr(31) || coalesce(v.campaign, chr(30)) || chr(31) || coalesce(nullif(split_part(split_part(v.page, '?', 1), '#', 1), ''), chr(30)));--> statement-breakpoint
alter table touch_source enable row level security;--> statement-breakpoint
create policy closed on touch_source to haycart_server using (workspace_id = (select current_workspace()));--> statement-breakpoint
grant select, insert, update on touch_source to haycart_server;
