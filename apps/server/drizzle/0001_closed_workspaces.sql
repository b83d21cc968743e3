-- Closes the workspaces to each other. The server works as haycart_server, which owns nothing and cannot bypass row-level
-- security: without the setting haycart.workspace it sees no row at all. See docs/decisions/0002-closed-workspaces.md.
do $$ begin
  create role haycart_server nologin nobypassrls;
exception when duplicate_object or unique_violation then null;
end $$;
--> statement-breakpoint
do $$ begin
  execute format('grant haycart_server to %I', current_user);
  execute format('grant usage on schema public to haycart_server');
end $$;
--> statement-breakpoint
create function current_workspace() returns uuid language sql stable parallel safe as
  $$ select nullif(current_setting('haycart.workspace', true), '')::uuid $$;
--> statement-breakpoint
do $$ declare t record; begin
  for t in select tablename from pg_tables where schemaname = 'public' loop
    execute format('alter table %I enable row level security', t.tablename);
    if t.tablename = 'workspace' then
      execute format('create policy closed on %I to haycart_server using (id = (select current_workspace()))', t.tablename);
      execute format('grant select, insert, update on %I to haycart_server', t.tablename);
    elsif t.tablename <> 'sign_in_try' then
      execute format('create policy closed on %I to haycart_server using (workspace_id = (select current_workspace()))', t.tablename);
      execute format('grant select, insert, update, delete on %I to haycart_server', t.tablename);
    end if;
  end loop;
end $$;
--> statement-breakpoint
-- What arrived is never changed or dropped, whatever the code does: only its place in the queue may change.
revoke update, delete on submission, submission_file, record_change, route_version from haycart_server;
--> statement-breakpoint
grant update (state, due_at, tries, turns) on submission to haycart_server;
--> statement-breakpoint
-- Gates: the few questions that must be asked before the workspace is known. Each answers as little as it can.
create function gate_intake(intake_key text, form_slug text) returns setof intake language sql stable security definer set search_path = public as
  $$ select * from intake where key = intake_key or slug = form_slug limit 1 $$;
--> statement-breakpoint
create function gate_people_signing_in(address text) returns table (workspace_id uuid, id uuid, password_hash text) language sql stable security definer set search_path = public as
  $$ select workspace_id, id, password_hash from person where lower(email) = lower(address) $$;
--> statement-breakpoint
create function gate_session(session_hash text) returns table (workspace_id uuid, person_id uuid, expires_at timestamptz) language sql stable security definer set search_path = public as
  $$ select workspace_id, person_id, expires_at from session where hash = session_hash $$;
--> statement-breakpoint
create function gate_api_token(token_hash text) returns table (workspace_id uuid, id uuid, name text) language sql stable security definer set search_path = public as
  $$ select workspace_id, id, name from api_token where hash = token_hash $$;
--> statement-breakpoint
create function gate_workspaces() returns table (id uuid, key text) language sql stable security definer set search_path = public as
  $$ select id, key from workspace order by created_at, id $$;
--> statement-breakpoint
create function gate_workspaces_waiting() returns table (id uuid) language sql stable security definer set search_path = public as
  $$ select w.id from workspace w
     where exists (select 1 from submission s where s.workspace_id = w.id and s.state = 'waiting' and s.due_at <= now()) $$;
--> statement-breakpoint
-- Counts one try to sign in and answers how many there were in the running quarter of an hour.
create function gate_sign_in_try(what text) returns integer language sql volatile security definer set search_path = public as
  $$ insert into sign_in_try (subject, window_start, tries) values (what, date_bin('15 minutes', now(), timestamptz '2000-01-01'), 1)
     on conflict (subject, window_start) do update set tries = sign_in_try.tries + 1 returning tries $$;
--> statement-breakpoint
-- House-keeping over all workspaces: what has expired goes.
create function gate_remove_expired() returns void language sql volatile security definer set search_path = public as
  $$ delete from session where expires_at < now();
     delete from idempotency where at < now() - interval '1 day';
     delete from sign_in_try where window_start < now() - interval '1 hour' $$;
--> statement-breakpoint
do $$ declare f record; begin
  for f in select p.oid::regprocedure as name from pg_proc p where p.pronamespace = 'public'::regnamespace and p.proname like 'gate\_%' loop
    execute format('revoke all on function %s from public', f.name);
    execute format('grant execute on function %s to haycart_server', f.name);
  end loop;
end $$;
--> statement-breakpoint
-- Workers keep routes, pipelines, fields and intakes in memory and read them anew when this count has moved.
create function count_revision() returns trigger language plpgsql security definer set search_path = public as
  $$ begin update workspace set revision = revision + 1 where id = current_workspace(); return null; end $$;
--> statement-breakpoint
create trigger revision after insert or delete or update of state, version on route for each statement execute function count_revision();
--> statement-breakpoint
create trigger revision after insert or delete or update on pipeline for each statement execute function count_revision();
--> statement-breakpoint
create trigger revision after insert or delete or update on stage for each statement execute function count_revision();
--> statement-breakpoint
create trigger revision after insert or delete or update on field for each statement execute function count_revision();
--> statement-breakpoint
create trigger revision after insert or delete or update on intake for each statement execute function count_revision();
