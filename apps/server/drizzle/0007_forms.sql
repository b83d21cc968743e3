CREATE TABLE "form_version" (
	"workspace_id" uuid NOT NULL,
	"intake_id" uuid NOT NULL,
	"version" integer NOT NULL,
	"form" jsonb NOT NULL,
	"note" text,
	"published_by" text NOT NULL,
	"published_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "form_version_workspace_id_intake_id_version_pk" PRIMARY KEY("workspace_id","intake_id","version")
);
--> statement-breakpoint
CREATE TABLE "theme" (
	"workspace_id" uuid NOT NULL,
	"key" text NOT NULL,
	"name" text NOT NULL,
	"theme" jsonb NOT NULL,
	CONSTRAINT "theme_workspace_id_key_pk" PRIMARY KEY("workspace_id","key"),
	CONSTRAINT "theme_name" UNIQUE("workspace_id","name")
);
--> statement-breakpoint
ALTER TABLE "intake" DROP CONSTRAINT "intake_form";--> statement-breakpoint
ALTER TABLE "intake" ADD COLUMN "archived" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "intake" ADD COLUMN "closed_message" text;--> statement-breakpoint
ALTER TABLE "intake" ADD COLUMN "version" integer DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE "intake" ADD COLUMN "draft" jsonb;--> statement-breakpoint
ALTER TABLE "intake" ADD COLUMN "draft_revision" integer DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE "form_version" ADD CONSTRAINT "form_version_workspace_id_intake_id_intake_workspace_id_id_fk" FOREIGN KEY ("workspace_id","intake_id") REFERENCES "public"."intake"("workspace_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
-- Forms from before: their questions become items, a choice is one of several, thanks come after sending.
update intake set form = (form - 'questions' - 'thanks') || jsonb_build_object(
  'after', jsonb_build_object('do', 'thank') || (form -> 'thanks'),
  'items', (select coalesce(jsonb_agg(
      (q - 'longest')
      || case when q ->> 'type' = 'choice' then '{"type": "one-of"}'::jsonb else '{}'::jsonb end
      || case when q ? 'longest' then jsonb_build_object('checks', jsonb_build_object('longest', q -> 'longest')) else '{}'::jsonb end
      order by place), '[]'::jsonb) from jsonb_array_elements(form -> 'questions') with ordinality as questions (q, place)))
where form ? 'questions';--> statement-breakpoint
update intake set draft = form, version = 1, draft_revision = 1 where form is not null;--> statement-breakpoint
insert into form_version (workspace_id, intake_id, version, form, note, published_by, published_at)
select workspace_id, id, 1, form, null, 'Hay Cart', created_at from intake where form is not null;--> statement-breakpoint
ALTER TABLE "intake" ADD CONSTRAINT "intake_form" CHECK (("intake"."kind" = 'form') = ("intake"."draft" is not null and "intake"."slug" is not null));--> statement-breakpoint
do $$ declare t text; begin
  foreach t in array array['form_version', 'theme'] loop
    execute format('alter table %I enable row level security', t);
    execute format('create policy closed on %I to haycart_server using (workspace_id = (select current_workspace()))', t);
    execute format('grant select, insert, update, delete on %I to haycart_server', t);
  end loop;
end $$;--> statement-breakpoint
revoke update, delete on form_version from haycart_server;
