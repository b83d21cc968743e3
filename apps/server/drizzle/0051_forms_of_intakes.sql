CREATE TABLE "form" (
	"workspace_id" uuid NOT NULL,
	"intake_id" uuid NOT NULL,
	"slug" text NOT NULL,
	"form" jsonb,
	"version" integer DEFAULT 0 NOT NULL,
	"trial" jsonb,
	"for_colleagues" boolean DEFAULT false NOT NULL,
	"closed_message" text,
	"draft" jsonb NOT NULL,
	"draft_revision" integer DEFAULT 1 NOT NULL,
	"copied_from" uuid,
	CONSTRAINT "form_workspace_id_intake_id_pk" PRIMARY KEY("workspace_id","intake_id"),
	CONSTRAINT "form_slug_unique" UNIQUE("slug")
);
--> statement-breakpoint
alter table form enable row level security;--> statement-breakpoint
create policy closed on form to haycart_server using (workspace_id = (select current_workspace()));--> statement-breakpoint
grant select, insert, update on form to haycart_server;--> statement-breakpoint
insert into form (workspace_id, intake_id, slug, form, version, trial, for_colleagues, closed_message, draft, draft_revision, copied_from)
select workspace_id, id, slug, form, version, trial, for_colleagues, closed_message, draft, draft_revision, copied_from from intake where kind = 'form';--> statement-breakpoint
drop function gate_intake(text, text);--> statement-breakpoint
ALTER TABLE "intake" DROP CONSTRAINT "intake_slug_unique";--> statement-breakpoint
ALTER TABLE "intake" DROP CONSTRAINT "intake_form";--> statement-breakpoint
ALTER TABLE "intake" DROP CONSTRAINT "intake_workspace_id_copied_from_intake_workspace_id_id_fk";--> statement-breakpoint
ALTER TABLE "form" ADD CONSTRAINT "form_workspace_id_intake_id_intake_workspace_id_id_fk" FOREIGN KEY ("workspace_id","intake_id") REFERENCES "public"."intake"("workspace_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "form" ADD CONSTRAINT "form_workspace_id_copied_from_form_workspace_id_intake_id_fk" FOREIGN KEY ("workspace_id","copied_from") REFERENCES "public"."form"("workspace_id","intake_id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "intake" DROP COLUMN "closed_message";--> statement-breakpoint
ALTER TABLE "intake" DROP COLUMN "slug";--> statement-breakpoint
ALTER TABLE "intake" DROP COLUMN "form";--> statement-breakpoint
ALTER TABLE "intake" DROP COLUMN "version";--> statement-breakpoint
ALTER TABLE "intake" DROP COLUMN "trial";--> statement-breakpoint
ALTER TABLE "intake" DROP COLUMN "for_colleagues";--> statement-breakpoint
ALTER TABLE "intake" DROP COLUMN "draft";--> statement-breakpoint
ALTER TABLE "intake" DROP COLUMN "draft_revision";--> statement-breakpoint
ALTER TABLE "intake" DROP COLUMN "copied_from";--> statement-breakpoint
create function gate_intake(intake_key text, form_slug text)
  returns table (
    workspace_id uuid, id uuid, key text, kind text, name text, state text, secret text, old_secret text, old_secret_until timestamptz, per_minute integer,
    slug text, form jsonb, version integer, trial jsonb, for_colleagues boolean, closed_message text
  ) language sql stable security definer set search_path = public as
  $$ select i.workspace_id, i.id, i.key, i.kind, i.name, i.state, i.secret, i.old_secret, i.old_secret_until, i.per_minute,
       f.slug, f.form, coalesce(f.version, 0), f.trial, coalesce(f.for_colleagues, false), f.closed_message
     from intake i left join form f on f.workspace_id = i.workspace_id and f.intake_id = i.id
     where i.key = intake_key or (i.workspace_id, i.id) = (select o.workspace_id, o.intake_id from form o where o.slug = form_slug) limit 1 $$;--> statement-breakpoint
revoke all on function gate_intake(text, text) from public;--> statement-breakpoint
grant execute on function gate_intake(text, text) to haycart_server;
