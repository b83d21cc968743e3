CREATE TABLE "known_device" (
	"workspace_id" uuid NOT NULL,
	"person_id" uuid NOT NULL,
	"hash" text NOT NULL,
	"seen_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "known_device_workspace_id_person_id_hash_pk" PRIMARY KEY("workspace_id","person_id","hash")
);
--> statement-breakpoint
CREATE TABLE "person_link" (
	"workspace_id" uuid NOT NULL,
	"hash" text NOT NULL,
	"person_id" uuid NOT NULL,
	"expires_at" timestamp with time zone NOT NULL,
	CONSTRAINT "person_link_workspace_id_person_id_pk" PRIMARY KEY("workspace_id","person_id"),
	CONSTRAINT "person_link_hash_unique" UNIQUE("hash")
);
--> statement-breakpoint
CREATE TABLE "wrong_try" (
	"subject" text PRIMARY KEY NOT NULL,
	"tries" integer NOT NULL,
	"last_at" timestamp with time zone NOT NULL
);
--> statement-breakpoint
DROP FUNCTION "gate_sign_in_try";--> statement-breakpoint
DROP TABLE "sign_in_try" CASCADE;--> statement-breakpoint
ALTER TABLE "entry_link" DROP CONSTRAINT "entry_link_secret_unique";--> statement-breakpoint
ALTER TABLE "person" ALTER COLUMN "password_hash" DROP NOT NULL;--> statement-breakpoint
ALTER TABLE "entry_link" ADD COLUMN "hash" text;--> statement-breakpoint
UPDATE "entry_link" SET "hash" = translate(rtrim(encode(sha256(convert_to("secret", 'UTF8')), 'base64'), '='), '+/', '-_');--> statement-breakpoint
ALTER TABLE "entry_link" ALTER COLUMN "hash" SET NOT NULL;--> statement-breakpoint
ALTER TABLE "intake" ADD COLUMN "old_secret" text;--> statement-breakpoint
ALTER TABLE "intake" ADD COLUMN "old_secret_until" timestamp with time zone;--> statement-breakpoint
ALTER TABLE "api_token" ADD COLUMN "scope" text DEFAULT 'all' NOT NULL;--> statement-breakpoint
ALTER TABLE "api_token" ADD COLUMN "person_id" uuid;--> statement-breakpoint
ALTER TABLE "api_token" ADD COLUMN "expires_at" timestamp with time zone;--> statement-breakpoint
ALTER TABLE "api_token" ADD COLUMN "used_at" timestamp with time zone;--> statement-breakpoint
ALTER TABLE "session" ADD COLUMN "id" uuid DEFAULT gen_random_uuid() NOT NULL;--> statement-breakpoint
ALTER TABLE "session" ADD COLUMN "created_at" timestamp with time zone DEFAULT now() NOT NULL;--> statement-breakpoint
ALTER TABLE "session" ADD COLUMN "seen_at" timestamp with time zone DEFAULT now() NOT NULL;--> statement-breakpoint
ALTER TABLE "session" ADD COLUMN "browser" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "known_device" ADD CONSTRAINT "known_device_workspace_id_person_id_person_workspace_id_id_fk" FOREIGN KEY ("workspace_id","person_id") REFERENCES "public"."person"("workspace_id","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "person_link" ADD CONSTRAINT "person_link_workspace_id_person_id_person_workspace_id_id_fk" FOREIGN KEY ("workspace_id","person_id") REFERENCES "public"."person"("workspace_id","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "api_token" ADD CONSTRAINT "api_token_workspace_id_person_id_person_workspace_id_id_fk" FOREIGN KEY ("workspace_id","person_id") REFERENCES "public"."person"("workspace_id","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "entry_link" ADD CONSTRAINT "entry_link_hash_unique" UNIQUE("hash");--> statement-breakpoint
ALTER TABLE "api_token" ADD CONSTRAINT "api_token_scope" CHECK ("api_token"."scope" in ('read', 'send', 'all'));--> statement-breakpoint
alter table wrong_try enable row level security;--> statement-breakpoint
do $$ declare t text; begin
  foreach t in array array['known_device', 'person_link'] loop
    execute format('alter table %I enable row level security', t);
    execute format('create policy closed on %I to haycart_server using (workspace_id = (select current_workspace()))', t);
    execute format('grant select, insert, update, delete on %I to haycart_server', t);
  end loop;
end $$;--> statement-breakpoint
create or replace function gate_entry(link_secret text) returns table (workspace_id uuid, intake_id uuid, person_id uuid, person_key text, person_name text) language sql stable security definer set search_path = public as
  $$ select e.workspace_id, e.intake_id, p.id, p.key, p.name from entry_link e
     join person p on p.workspace_id = e.workspace_id and p.id = e.person_id where e.hash = link_secret and p.active $$;--> statement-breakpoint
-- A session ends when it is old, or was not used for three days. That it was used is noted to a minute.
drop function gate_session(text);--> statement-breakpoint
create function gate_session(session_hash text) returns table (workspace_id uuid, person_id uuid) language plpgsql volatile security definer set search_path = public as
  $$ begin
    update session s set seen_at = now() where s.hash = session_hash and s.seen_at < now() - interval '1 minute' and s.seen_at > now() - interval '3 days';
    return query select s.workspace_id, s.person_id from session s
      where s.hash = session_hash and s.expires_at > now() and s.seen_at > now() - interval '3 days';
  end $$;--> statement-breakpoint
-- A token ends by its time, and with whoever made it.
drop function gate_api_token(text);--> statement-breakpoint
create function gate_api_token(token_hash text) returns table (workspace_id uuid, id uuid, name text, scope text) language plpgsql volatile security definer set search_path = public as
  $$ begin
    update api_token t set used_at = now() where t.hash = token_hash and (t.used_at is null or t.used_at < now() - interval '1 minute');
    return query select t.workspace_id, t.id, t.name, t.scope from api_token t
      left join person p on p.workspace_id = t.workspace_id and p.id = t.person_id
      where t.hash = token_hash and (t.expires_at is null or t.expires_at > now()) and (t.person_id is null or p.active);
  end $$;--> statement-breakpoint
create or replace function gate_people_signing_in(address text) returns table (workspace_id uuid, id uuid, password_hash text) language sql stable security definer set search_path = public as
  $$ select workspace_id, id, password_hash from person where active and password_hash is not null and lower(email) = lower(address) $$;--> statement-breakpoint
create function gate_people_called(address text) returns table (workspace_id uuid, id uuid) language sql stable security definer set search_path = public as
  $$ select workspace_id, id from person where active and lower(email) = lower(address) $$;--> statement-breakpoint
create function gate_device_known(device text) returns table (workspace_id uuid, person_id uuid) language sql stable security definer set search_path = public as
  $$ select workspace_id, person_id from known_device where hash = device $$;--> statement-breakpoint
-- Whose link it is, while it lasts.
create function gate_person_link(link_hash text) returns table (workspace_id uuid, person_id uuid) language sql stable security definer set search_path = public as
  $$ select l.workspace_id, l.person_id from person_link l join person p on p.workspace_id = l.workspace_id and p.id = l.person_id
     where l.hash = link_hash and l.expires_at > now() and p.active $$;--> statement-breakpoint
-- How many seconds to wait: so many wrong tries are free, and each after them doubles the wait, to a quarter of an hour.
create function gate_wait(subjects text[], free integer[]) returns integer language sql stable security definer set search_path = public as
  $$ select coalesce(max(ceil(extract(epoch from t.last_at + make_interval(secs => least(900, power(2, least(t.tries - s.free, 10)))) - now())))::integer, 0)
     from unnest(subjects, free) s (subject, free) join wrong_try t on t.subject = s.subject where t.tries >= s.free $$;--> statement-breakpoint
create function gate_wrong_try(subjects text[]) returns void language sql volatile security definer set search_path = public as
  $$ insert into wrong_try (subject, tries, last_at) select distinct s, 1, now() from unnest(subjects) s
     on conflict (subject) do update set tries = case when wrong_try.last_at < now() - interval '1 hour' then 1 else wrong_try.tries + 1 end, last_at = now() $$;--> statement-breakpoint
create function gate_right_try(what text) returns void language sql volatile security definer set search_path = public as
  $$ delete from wrong_try where subject = what $$;--> statement-breakpoint
create or replace function gate_remove_expired() returns void language sql volatile security definer set search_path = public as
  $$ delete from session where expires_at < now() or seen_at < now() - interval '3 days';
     delete from api_token where expires_at < now() - interval '30 days';
     delete from person_link where expires_at < now();
     delete from known_device where seen_at < now() - interval '1 year';
     update intake set old_secret = null, old_secret_until = null where old_secret_until < now();
     delete from idempotency where at < now() - interval '1 day';
     delete from job_worker where seen_at < now() - interval '1 day';
     delete from wrong_try where last_at < now() - interval '1 hour' $$;--> statement-breakpoint
do $$ declare f record; begin
  for f in select p.oid::regprocedure as name from pg_proc p where p.pronamespace = 'public'::regnamespace and p.proname like 'gate\_%' loop
    execute format('revoke all on function %s from public', f.name);
    execute format('grant execute on function %s to haycart_server', f.name);
  end loop;
end $$;
