CREATE TABLE "likeness_model" (
	"workspace_id" uuid NOT NULL,
	"record_kind" text NOT NULL,
	"model" jsonb NOT NULL,
	"learned_at" timestamp with time zone NOT NULL,
	CONSTRAINT "likeness_model_workspace_id_record_kind_pk" PRIMARY KEY("workspace_id","record_kind")
);
--> statement-breakpoint
CREATE TABLE "look_alike" (
	"workspace_id" uuid NOT NULL,
	"record_kind" text NOT NULL,
	"one_id" uuid NOT NULL,
	"other_id" uuid NOT NULL,
	"probability" double precision NOT NULL,
	"pattern" text NOT NULL,
	"state" text DEFAULT 'open' NOT NULL,
	"found_at" timestamp with time zone NOT NULL,
	"checked_at" timestamp with time zone NOT NULL,
	"intake" text,
	"decided_by" text,
	"decided_at" timestamp with time zone,
	CONSTRAINT "look_alike_workspace_id_one_id_other_id_pk" PRIMARY KEY("workspace_id","one_id","other_id")
);
--> statement-breakpoint
CREATE TABLE "look_alike_scan" (
	"workspace_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"record_kind" text NOT NULL,
	"state" text NOT NULL,
	"records" integer NOT NULL,
	"parts_done" integer NOT NULL,
	"parts" integer NOT NULL,
	"pairs" bigint NOT NULL,
	"found" integer NOT NULL,
	"scores" jsonb NOT NULL,
	"by" text NOT NULL,
	"started_at" timestamp with time zone NOT NULL,
	"finished_at" timestamp with time zone,
	CONSTRAINT "look_alike_scan_workspace_id_id_pk" PRIMARY KEY("workspace_id","id")
);
--> statement-breakpoint
CREATE TABLE "match_answer" (
	"workspace_id" uuid NOT NULL,
	"submission_id" uuid NOT NULL,
	"route_id" uuid NOT NULL,
	"write" text NOT NULL,
	"answer" jsonb NOT NULL,
	"probability" double precision,
	"by" text NOT NULL,
	"at" timestamp with time zone NOT NULL,
	CONSTRAINT "match_answer_workspace_id_submission_id_route_id_write_pk" PRIMARY KEY("workspace_id","submission_id","route_id","write")
);
--> statement-breakpoint
CREATE TABLE "recognition" (
	"workspace_id" uuid NOT NULL,
	"mailboxes" jsonb,
	"merging" jsonb,
	"indexed" integer DEFAULT 0 NOT NULL,
	"thresholds" jsonb,
	"looked_until" uuid,
	CONSTRAINT "recognition_workspace_id_pk" PRIMARY KEY("workspace_id")
);
--> statement-breakpoint
CREATE TABLE "record_block" (
	"workspace_id" uuid NOT NULL,
	"record_kind" text NOT NULL,
	"block" text NOT NULL,
	"record_id" uuid NOT NULL,
	CONSTRAINT "record_block_workspace_id_record_kind_block_record_id_pk" PRIMARY KEY("workspace_id","record_kind","block","record_id")
);
--> statement-breakpoint
CREATE TABLE "record_merge" (
	"workspace_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"record_kind" text NOT NULL,
	"survivor_id" uuid NOT NULL,
	"absorbed_id" uuid NOT NULL,
	"absorbed_number" bigint NOT NULL,
	"absorbed_name" text NOT NULL,
	"cause_kind" text NOT NULL,
	"cause_id" uuid NOT NULL,
	"by" text NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"probability" double precision,
	"diff" jsonb NOT NULL,
	"moved" jsonb NOT NULL,
	"undone_at" timestamp with time zone,
	"undone_by" text,
	CONSTRAINT "record_merge_workspace_id_id_pk" PRIMARY KEY("workspace_id","id")
);
--> statement-breakpoint
ALTER TABLE "company" ADD COLUMN "external_ids" text[];--> statement-breakpoint
ALTER TABLE "company" ADD COLUMN "domains" text[];--> statement-breakpoint
ALTER TABLE "contact" ADD COLUMN "external_ids" text[];--> statement-breakpoint
ALTER TABLE "deal" ADD COLUMN "external_ids" text[];--> statement-breakpoint
ALTER TABLE "lead" ADD COLUMN "external_ids" text[];--> statement-breakpoint
CREATE INDEX "look_alike_other" ON "look_alike" USING btree ("workspace_id","other_id");--> statement-breakpoint
CREATE INDEX "look_alike_open" ON "look_alike" USING btree ("workspace_id","record_kind","probability" DESC NULLS LAST) WHERE state in ('open', 'later');--> statement-breakpoint
CREATE INDEX "look_alike_found" ON "look_alike" USING btree ("workspace_id","found_at");--> statement-breakpoint
CREATE UNIQUE INDEX "look_alike_scan_running" ON "look_alike_scan" USING btree ("workspace_id","record_kind") WHERE state = 'running';--> statement-breakpoint
CREATE INDEX "look_alike_scan_started" ON "look_alike_scan" USING btree ("workspace_id","started_at");--> statement-breakpoint
CREATE INDEX "record_block_record" ON "record_block" USING btree ("workspace_id","record_id");--> statement-breakpoint
CREATE UNIQUE INDEX "record_merge_absorbed" ON "record_merge" USING btree ("workspace_id","absorbed_id") WHERE undone_at is null;--> statement-breakpoint
CREATE INDEX "record_merge_survivor" ON "record_merge" USING btree ("workspace_id","survivor_id");--> statement-breakpoint
CREATE INDEX "record_merge_at" ON "record_merge" USING btree ("workspace_id","at");--> statement-breakpoint
CREATE INDEX "record_merge_cause" ON "record_merge" USING btree ("workspace_id","cause_id");--> statement-breakpoint
alter table record_block enable row level security;--> statement-breakpoint
create policy closed on record_block to haycart_server using (workspace_id = (select current_workspace()));--> statement-breakpoint
grant select, insert, update, delete on record_block to haycart_server;--> statement-breakpoint
alter table record_merge enable row level security;--> statement-breakpoint
create policy closed on record_merge to haycart_server using (workspace_id = (select current_workspace()));--> statement-breakpoint
grant select, insert, update, delete on record_merge to haycart_server;--> statement-breakpoint
alter table recognition enable row level security;--> statement-breakpoint
create policy closed on recognition to haycart_server using (workspace_id = (select current_workspace()));--> statement-breakpoint
grant select, insert, update, delete on recognition to haycart_server;--> statement-breakpoint
alter table likeness_model enable row level security;--> statement-breakpoint
create policy closed on likeness_model to haycart_server using (workspace_id = (select current_workspace()));--> statement-breakpoint
grant select, insert, update, delete on likeness_model to haycart_server;--> statement-breakpoint
alter table look_alike enable row level security;--> statement-breakpoint
create policy closed on look_alike to haycart_server using (workspace_id = (select current_workspace()));--> statement-breakpoint
grant select, insert, update, delete on look_alike to haycart_server;--> statement-breakpoint
alter table look_alike_scan enable row level security;--> statement-breakpoint
create policy closed on look_alike_scan to haycart_server using (workspace_id = (select current_workspace()));--> statement-breakpoint
grant select, insert, update, delete on look_alike_scan to haycart_server;--> statement-breakpoint
alter table match_answer enable row level security;--> statement-breakpoint
create policy closed on match_answer to haycart_server using (workspace_id = (select current_workspace()));--> statement-breakpoint
grant select, insert, update, delete on match_answer to haycart_server;--> statement-breakpoint
create trigger revision after insert or delete or update on recognition for each statement execute function count_revision();--> statement-breakpoint
create trigger revision after insert or delete or update on likeness_model for each statement execute function count_revision();
--> statement-breakpoint
update company set domains = array[domain] where domain is not null;
