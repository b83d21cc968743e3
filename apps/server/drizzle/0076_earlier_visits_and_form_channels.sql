DROP INDEX "visit_at";--> statement-breakpoint
ALTER TABLE "visit" ADD COLUMN "earlier" boolean DEFAULT false NOT NULL;--> statement-breakpoint
CREATE INDEX "visit_at" ON "visit" USING btree ("workspace_id","at","source_id","earlier");--> statement-breakpoint
ALTER TABLE "form_count" ADD COLUMN "channel" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "form_count" ADD COLUMN "campaign" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "form_count" DROP CONSTRAINT "form_count_workspace_id_intake_id_day_version_page_source_device_did_item_pk";--> statement-breakpoint
ALTER TABLE "form_count" ADD CONSTRAINT "form_count_pk" PRIMARY KEY("workspace_id","intake_id","day","version","page","channel","source","campaign","device","did","item");--> statement-breakpoint
-- What was counted before had the source alone: the channel is the one that most submissions of that source came by.
update form_count f set channel = s.channel from (
  select distinct on (workspace_id, source) workspace_id, source, channel from (
    select s.workspace_id, s.source, s.channel, count(*) as visits from touch_source s
    join visit v on v.workspace_id = s.workspace_id and v.source_id = s.id group by 1, 2, 3) c
  order by workspace_id, source, visits desc, channel) s
where s.workspace_id = f.workspace_id and s.source = f.source;
