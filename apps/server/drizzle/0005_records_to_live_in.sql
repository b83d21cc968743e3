CREATE TABLE "contact_list" (
	"workspace_id" uuid NOT NULL,
	"key" text NOT NULL,
	"name" text NOT NULL,
	"colour" text,
	"retired" boolean DEFAULT false NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "contact_list_workspace_id_key_pk" PRIMARY KEY("workspace_id","key")
);
--> statement-breakpoint
CREATE TABLE "tag" (
	"workspace_id" uuid NOT NULL,
	"key" text NOT NULL,
	"name" text NOT NULL,
	"colour" text,
	"retired" boolean DEFAULT false NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "tag_workspace_id_key_pk" PRIMARY KEY("workspace_id","key")
);
--> statement-breakpoint
CREATE TABLE "consent" (
	"workspace_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"contact_id" uuid NOT NULL,
	"channel" text NOT NULL,
	"state" text NOT NULL,
	"words" text NOT NULL,
	"place" text NOT NULL,
	"by" text NOT NULL,
	"at" timestamp with time zone NOT NULL,
	CONSTRAINT "consent_workspace_id_id_pk" PRIMARY KEY("workspace_id","id")
);
--> statement-breakpoint
CREATE TABLE "list_membership" (
	"workspace_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"list_key" text NOT NULL,
	"contact_id" uuid NOT NULL,
	"joined_at" timestamp with time zone NOT NULL,
	"left_at" timestamp with time zone,
	CONSTRAINT "list_membership_workspace_id_id_pk" PRIMARY KEY("workspace_id","id")
);
--> statement-breakpoint
CREATE TABLE "note" (
	"workspace_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"record_id" uuid NOT NULL,
	"text" text NOT NULL,
	"by" text NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"changed_at" timestamp with time zone,
	CONSTRAINT "note_workspace_id_id_pk" PRIMARY KEY("workspace_id","id")
);
--> statement-breakpoint
CREATE TABLE "record_edit" (
	"workspace_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"person_id" uuid,
	"by" text NOT NULL,
	"text" text NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"taken_back_by" text,
	"taken_back_at" timestamp with time zone,
	CONSTRAINT "record_edit_workspace_id_id_pk" PRIMARY KEY("workspace_id","id")
);
--> statement-breakpoint
CREATE TABLE "record_file" (
	"workspace_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"record_id" uuid NOT NULL,
	"name" text NOT NULL,
	"type" text NOT NULL,
	"size" integer NOT NULL,
	"bytes" "bytea" NOT NULL,
	"by" text NOT NULL,
	"at" timestamp with time zone NOT NULL,
	CONSTRAINT "record_file_workspace_id_id_pk" PRIMARY KEY("workspace_id","id")
);
--> statement-breakpoint
CREATE TABLE "removed_record" (
	"workspace_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"kind" text NOT NULL,
	"row" jsonb NOT NULL,
	"at" timestamp with time zone NOT NULL,
	CONSTRAINT "removed_record_workspace_id_id_pk" PRIMARY KEY("workspace_id","id")
);
--> statement-breakpoint
CREATE TABLE "stage_move" (
	"workspace_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"record_id" uuid NOT NULL,
	"pipeline" text NOT NULL,
	"from_stage" text,
	"to_stage" text NOT NULL,
	"at" timestamp with time zone NOT NULL,
	CONSTRAINT "stage_move_workspace_id_id_pk" PRIMARY KEY("workspace_id","id")
);
--> statement-breakpoint
CREATE TABLE "task" (
	"workspace_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"record_id" uuid NOT NULL,
	"text" text NOT NULL,
	"owner" text,
	"due" date,
	"by" text NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"done_at" timestamp with time zone,
	"done_by" text,
	CONSTRAINT "task_workspace_id_id_pk" PRIMARY KEY("workspace_id","id")
);
--> statement-breakpoint
CREATE TABLE "saved_view" (
	"workspace_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"record" text NOT NULL,
	"name" text NOT NULL,
	"view" jsonb NOT NULL,
	"person_id" uuid,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "saved_view_workspace_id_id_pk" PRIMARY KEY("workspace_id","id")
);
--> statement-breakpoint
CREATE TABLE "exchange_rate" (
	"workspace_id" uuid NOT NULL,
	"currency" text NOT NULL,
	"from_day" date NOT NULL,
	"rate" numeric NOT NULL,
	CONSTRAINT "exchange_rate_workspace_id_currency_from_day_pk" PRIMARY KEY("workspace_id","currency","from_day"),
	CONSTRAINT "exchange_rate_positive" CHECK ("exchange_rate"."rate" > 0)
);
--> statement-breakpoint
ALTER TABLE "field" ADD COLUMN "is_unique" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "field" ADD COLUMN "group_name" text;--> statement-breakpoint
ALTER TABLE "company" ADD COLUMN "owner" text;--> statement-breakpoint
ALTER TABLE "contact" ADD COLUMN "owner" text;--> statement-breakpoint
ALTER TABLE "contact" ADD COLUMN "lists" text[] DEFAULT '{}' NOT NULL;--> statement-breakpoint
ALTER TABLE "deal" ADD COLUMN "owner" text;--> statement-breakpoint
ALTER TABLE "deal" ADD COLUMN "reason" text;--> statement-breakpoint
ALTER TABLE "lead" ADD COLUMN "owner" text;--> statement-breakpoint
ALTER TABLE "lead" ADD COLUMN "reason" text;--> statement-breakpoint
ALTER TABLE "person" ADD COLUMN "key" text;--> statement-breakpoint
-- People who were there before get a key from their name, numbered where two are called alike.
update person set key = named.key from (
  select workspace_id, id, base || case when n = 1 then '' else '-' || n end as key from (
    select workspace_id, id, base, row_number() over (partition by workspace_id, base order by created_at, id) as n from (
      select workspace_id, id, created_at, coalesce(nullif(trim(both '-' from regexp_replace(lower(name), '[^a-z0-9]+', '-', 'g')), ''), 'person') as base from person) b) numbered) named
where named.workspace_id = person.workspace_id and named.id = person.id;--> statement-breakpoint
ALTER TABLE "person" ALTER COLUMN "key" SET NOT NULL;--> statement-breakpoint
ALTER TABLE "person" ADD CONSTRAINT "person_key" UNIQUE("workspace_id","key");--> statement-breakpoint
ALTER TABLE "person" ADD COLUMN "active" boolean DEFAULT true NOT NULL;--> statement-breakpoint
ALTER TABLE "person" ADD COLUMN "regions" text[] DEFAULT '{}' NOT NULL;--> statement-breakpoint
ALTER TABLE "person" ADD COLUMN "languages" text[] DEFAULT '{}' NOT NULL;--> statement-breakpoint
ALTER TABLE "person" ADD COLUMN "time_zone" text;--> statement-breakpoint
ALTER TABLE "person" ADD COLUMN "hours" jsonb DEFAULT '{}'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "person" ADD COLUMN "capacity" integer;--> statement-breakpoint
ALTER TABLE "person" ADD COLUMN "away" jsonb DEFAULT '[]'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "workspace" ADD COLUMN "lead_handling" text DEFAULT 'deals' NOT NULL;--> statement-breakpoint
ALTER TABLE "workspace" ADD COLUMN "deal_word" text DEFAULT 'deal' NOT NULL;--> statement-breakpoint
ALTER TABLE "task" ADD CONSTRAINT "task_workspace_id_owner_person_workspace_id_key_fk" FOREIGN KEY ("workspace_id","owner") REFERENCES "public"."person"("workspace_id","key") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "exchange_rate" ADD CONSTRAINT "exchange_rate_workspace_id_workspace_id_fk" FOREIGN KEY ("workspace_id") REFERENCES "public"."workspace"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "consent_contact" ON "consent" USING btree ("workspace_id","contact_id","at");--> statement-breakpoint
CREATE UNIQUE INDEX "list_membership_now" ON "list_membership" USING btree ("workspace_id","contact_id","list_key") WHERE left_at is null;--> statement-breakpoint
CREATE INDEX "list_membership_list" ON "list_membership" USING btree ("workspace_id","list_key","joined_at");--> statement-breakpoint
CREATE INDEX "note_record" ON "note" USING btree ("workspace_id","record_id","at");--> statement-breakpoint
CREATE INDEX "record_edit_at" ON "record_edit" USING btree ("workspace_id","at");--> statement-breakpoint
CREATE INDEX "record_file_record" ON "record_file" USING btree ("workspace_id","record_id","at");--> statement-breakpoint
CREATE INDEX "stage_move_pipeline" ON "stage_move" USING btree ("workspace_id","pipeline","at");--> statement-breakpoint
CREATE INDEX "stage_move_record" ON "stage_move" USING btree ("workspace_id","record_id","at");--> statement-breakpoint
CREATE INDEX "task_record" ON "task" USING btree ("workspace_id","record_id","at");--> statement-breakpoint
CREATE INDEX "task_open" ON "task" USING btree ("workspace_id","owner","due") WHERE done_at is null;--> statement-breakpoint
ALTER TABLE "company" ADD CONSTRAINT "company_workspace_id_owner_person_workspace_id_key_fk" FOREIGN KEY ("workspace_id","owner") REFERENCES "public"."person"("workspace_id","key") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "contact" ADD CONSTRAINT "contact_workspace_id_owner_person_workspace_id_key_fk" FOREIGN KEY ("workspace_id","owner") REFERENCES "public"."person"("workspace_id","key") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "deal" ADD CONSTRAINT "deal_workspace_id_owner_person_workspace_id_key_fk" FOREIGN KEY ("workspace_id","owner") REFERENCES "public"."person"("workspace_id","key") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "lead" ADD CONSTRAINT "lead_workspace_id_owner_person_workspace_id_key_fk" FOREIGN KEY ("workspace_id","owner") REFERENCES "public"."person"("workspace_id","key") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "lead" ADD CONSTRAINT "lead_workspace_id_pipeline_stage_stage_workspace_id_pipeline_key_key_fk" FOREIGN KEY ("workspace_id","pipeline","stage") REFERENCES "public"."stage"("workspace_id","pipeline_key","key") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "deal_updated" ON "deal" USING btree ("workspace_id","updated_at" DESC NULLS FIRST,"id" DESC NULLS FIRST);--> statement-breakpoint
CREATE INDEX "lead_updated" ON "lead" USING btree ("workspace_id","updated_at" DESC NULLS FIRST,"id" DESC NULLS FIRST);--> statement-breakpoint
ALTER TABLE "person" ADD CONSTRAINT "person_capacity" CHECK ("person"."capacity" >= 0);--> statement-breakpoint
do $$ declare t text; begin
  foreach t in array array['tag', 'contact_list', 'consent', 'list_membership', 'note', 'record_edit', 'record_file', 'removed_record', 'stage_move', 'task', 'saved_view', 'exchange_rate'] loop
    execute format('alter table %I enable row level security', t);
    execute format('create policy closed on %I to haycart_server using (workspace_id = (select current_workspace()))', t);
    execute format('grant select, insert, update, delete on %I to haycart_server', t);
  end loop;
end $$;--> statement-breakpoint
-- What was agreed to is only ever added to.
revoke update, delete on consent from haycart_server;--> statement-breakpoint
-- Routing reads people, teams, tags and lists, so it must know when they change.
create trigger revision after insert or delete or update on tag for each statement execute function count_revision();--> statement-breakpoint
create trigger revision after insert or delete or update on contact_list for each statement execute function count_revision();--> statement-breakpoint
create trigger revision after insert or delete or update on person for each statement execute function count_revision();--> statement-breakpoint
create trigger revision after insert or delete or update on team for each statement execute function count_revision();--> statement-breakpoint
create trigger revision after insert or delete or update on team_member for each statement execute function count_revision();--> statement-breakpoint
-- Nobody signs in who is not active.
create or replace function gate_people_signing_in(address text) returns table (workspace_id uuid, id uuid, password_hash text) language sql stable security definer set search_path = public as
  $$ select workspace_id, id, password_hash from person where active and lower(email) = lower(address) $$;--> statement-breakpoint
-- Lists are searched by any part of a name or address, and filtered by any field's value.
create extension if not exists pg_trgm;--> statement-breakpoint
create extension if not exists btree_gin;--> statement-breakpoint
create index contact_search on contact using gin (workspace_id, lower((case when full_name is null then '' else full_name end) || ' ' || (case when email is null then '' else email end)) gin_trgm_ops);--> statement-breakpoint
create index company_search on company using gin (workspace_id, lower(name || ' ' || (case when domain is null then '' else domain end)) gin_trgm_ops);--> statement-breakpoint
create index lead_search on lead using gin (workspace_id, lower(name || ' ' || (case when email is null then '' else email end)) gin_trgm_ops);--> statement-breakpoint
create index deal_search on deal using gin (workspace_id, lower(name) gin_trgm_ops);--> statement-breakpoint
create index contact_custom on contact using gin (workspace_id, custom jsonb_path_ops);--> statement-breakpoint
create index company_custom on company using gin (workspace_id, custom jsonb_path_ops);--> statement-breakpoint
create index lead_custom on lead using gin (workspace_id, custom jsonb_path_ops);--> statement-breakpoint
create index deal_custom on deal using gin (workspace_id, custom jsonb_path_ops);--> statement-breakpoint
create index contact_marks on contact using gin (workspace_id, tags, lists);--> statement-breakpoint
create index company_marks on company using gin (workspace_id, tags);--> statement-breakpoint
create index lead_marks on lead using gin (workspace_id, tags);--> statement-breakpoint
create index deal_marks on deal using gin (workspace_id, tags);--> statement-breakpoint
create index contact_name on contact (workspace_id, (lower(full_name)), id);--> statement-breakpoint
create index company_name on company (workspace_id, (lower(name)), id);--> statement-breakpoint
create index deal_name on deal (workspace_id, (lower(name)), id);--> statement-breakpoint
create index contact_email on contact (workspace_id, (lower(email)), id);--> statement-breakpoint
create index deal_value on deal (workspace_id, value_amount, id);--> statement-breakpoint
create index contact_owner on contact (workspace_id, owner);--> statement-breakpoint
create index company_owner on company (workspace_id, owner);--> statement-breakpoint
create index deal_owner on deal (workspace_id, owner, status);--> statement-breakpoint
-- Deals that are there already have a history of stages in what was changed.
insert into stage_move (workspace_id, id, record_id, pipeline, from_stage, to_stage, at)
select c.workspace_id, gen_random_uuid(), c.record_id, d.pipeline, null, m.value -> 'values' ->> 'stage', c.at
from record_change c cross join lateral jsonb_each(c.diff -> 'created') m join deal d on d.workspace_id = c.workspace_id and d.id = c.record_id
where c.record_kind = 'deal' and m.value -> 'values' ? 'stage';--> statement-breakpoint
insert into stage_move (workspace_id, id, record_id, pipeline, from_stage, to_stage, at)
select c.workspace_id, gen_random_uuid(), c.record_id, d.pipeline, m.value -> 'fields' -> 'stage' ->> 'before', m.value -> 'fields' -> 'stage' ->> 'after', c.at
from record_change c cross join lateral jsonb_each(c.diff -> 'changed') m join deal d on d.workspace_id = c.workspace_id and d.id = c.record_id
where c.record_kind = 'deal' and m.value -> 'fields' ? 'stage' and m.value -> 'fields' -> 'stage' ->> 'after' is not null;
--> statement-breakpoint
-- Row-level security lets only leakproof functions into index conditions. These tell nothing of their arguments but by
-- their answer; where the database's owner may not say so, lists still work, reading more rows. See docs/decisions/0006.
do $$ declare f text; begin
  foreach f in array array['jsonb_contains(jsonb, jsonb)', 'textlike(text, text)', 'lower(text)', 'textcat(text, text)', 'arrayoverlap(anyarray, anyarray)', 'arraycontains(anyarray, anyarray)', 'jsonb_object_field_text(jsonb, text)'] loop
    begin
      execute format('alter function %s leakproof', f);
    exception when insufficient_privilege then
      raise notice 'Only a superuser may mark % leakproof; searching long lists takes longer.', f;
    end;
  end loop;
end $$;
--> statement-breakpoint
drop index identity_key_unique;--> statement-breakpoint
create unique index identity_key_unique on identity_key (workspace_id, record_kind, key_kind, value)
  where (key_kind in ('email', 'domain', 'external-id') and record_kind <> 'lead') or key_kind like 'field:%';
