CREATE TABLE "campaign" (
	"workspace_id" uuid NOT NULL,
	"key" text NOT NULL,
	"name" text NOT NULL,
	"code" text NOT NULL,
	"source" text DEFAULT '' NOT NULL,
	"medium" text DEFAULT '' NOT NULL,
	"spellings" text[] DEFAULT '{}' NOT NULL,
	"starts" date,
	"ends" date,
	"owner" text,
	"archived" boolean DEFAULT false NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "campaign_workspace_id_key_pk" PRIMARY KEY("workspace_id","key")
);
--> statement-breakpoint
CREATE TABLE "campaign_cost" (
	"workspace_id" uuid NOT NULL,
	"campaign_key" text NOT NULL,
	"day" date NOT NULL,
	"source" text NOT NULL,
	"medium" text NOT NULL,
	"amount" bigint NOT NULL,
	"currency" text NOT NULL,
	CONSTRAINT "campaign_cost_workspace_id_campaign_key_day_source_medium_pk" PRIMARY KEY("workspace_id","campaign_key","day","source","medium")
);
--> statement-breakpoint
CREATE TABLE "campaign_link" (
	"workspace_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"campaign_key" text NOT NULL,
	"address" text NOT NULL,
	"parameters" jsonb NOT NULL,
	"by" text NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "campaign_link_workspace_id_id_pk" PRIMARY KEY("workspace_id","id")
);
--> statement-breakpoint
CREATE TABLE "link_rules" (
	"workspace_id" uuid NOT NULL,
	"rules" jsonb NOT NULL,
	CONSTRAINT "link_rules_workspace_id_pk" PRIMARY KEY("workspace_id")
);
--> statement-breakpoint
CREATE TABLE "link_watch" (
	"workspace_id" uuid NOT NULL,
	"looked_until" integer NOT NULL,
	CONSTRAINT "link_watch_workspace_id_pk" PRIMARY KEY("workspace_id")
);
--> statement-breakpoint
CREATE TABLE "wrong_link" (
	"workspace_id" uuid NOT NULL,
	"id" text NOT NULL,
	"parameters" jsonb NOT NULL,
	"problems" text[] NOT NULL,
	"unknown_campaign" boolean NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "wrong_link_workspace_id_id_pk" PRIMARY KEY("workspace_id","id")
);
--> statement-breakpoint
ALTER TABLE "campaign_cost" ADD CONSTRAINT "campaign_cost_workspace_id_campaign_key_campaign_workspace_id_key_fk" FOREIGN KEY ("workspace_id","campaign_key") REFERENCES "public"."campaign"("workspace_id","key") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "campaign_link" ADD CONSTRAINT "campaign_link_workspace_id_campaign_key_campaign_workspace_id_key_fk" FOREIGN KEY ("workspace_id","campaign_key") REFERENCES "public"."campaign"("workspace_id","key") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE UNIQUE INDEX "campaign_name" ON "campaign" USING btree ("workspace_id",lower("name"));--> statement-breakpoint
CREATE UNIQUE INDEX "campaign_code" ON "campaign" USING btree ("workspace_id",lower("code"));--> statement-breakpoint
CREATE INDEX "campaign_cost_day" ON "campaign_cost" USING btree ("workspace_id","day");--> statement-breakpoint
CREATE UNIQUE INDEX "campaign_link_address" ON "campaign_link" USING btree ("workspace_id","campaign_key",md5("address"));--> statement-breakpoint
alter table campaign enable row level security;--> statement-breakpoint
create policy closed on campaign to haycart_server using (workspace_id = (select current_workspace()));--> statement-breakpoint
grant select, insert, update, delete on campaign to haycart_server;--> statement-breakpoint
create trigger revision after insert or delete or update on campaign for each statement execute function count_revision();--> statement-breakpoint
alter table campaign_cost enable row level security;--> statement-breakpoint
create policy closed on campaign_cost to haycart_server using (workspace_id = (select current_workspace()));--> statement-breakpoint
grant select, insert, update, delete on campaign_cost to haycart_server;--> statement-breakpoint
alter table campaign_link enable row level security;--> statement-breakpoint
create policy closed on campaign_link to haycart_server using (workspace_id = (select current_workspace()));--> statement-breakpoint
grant select, insert, update, delete on campaign_link to haycart_server;--> statement-breakpoint
alter table link_rules enable row level security;--> statement-breakpoint
create policy closed on link_rules to haycart_server using (workspace_id = (select current_workspace()));--> statement-breakpoint
grant select, insert, update, delete on link_rules to haycart_server;--> statement-breakpoint
-- What came by the links of a campaign is found by what they say.
create index touch_way_link on touch_way (workspace_id, md5(coalesce(way ->> 'utm_campaign', '') || chr(31) || coalesce(way ->> 'utm_source', '')));
--> statement-breakpoint
alter table wrong_link enable row level security;--> statement-breakpoint
create policy closed on wrong_link to haycart_server using (workspace_id = (select current_workspace()));--> statement-breakpoint
grant select, insert, update, delete on wrong_link to haycart_server;--> statement-breakpoint
alter table link_watch enable row level security;--> statement-breakpoint
create policy closed on link_watch to haycart_server using (workspace_id = (select current_workspace()));--> statement-breakpoint
grant select, insert, update, delete on link_watch to haycart_server;
