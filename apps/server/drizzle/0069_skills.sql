ALTER TABLE "person" ADD COLUMN "skills" text[] DEFAULT '{}' NOT NULL;--> statement-breakpoint
ALTER TABLE "person" ADD COLUMN "per_day" integer;--> statement-breakpoint
ALTER TABLE "person" ADD CONSTRAINT "person_per_day" CHECK ("person"."per_day" >= 0);--> statement-breakpoint
create or replace function gate_remove_expired() returns void language sql volatile security definer set search_path = public as
  $$ delete from session where expires_at < now() or seen_at < now() - interval '3 days';
     delete from api_token where expires_at < now() - interval '30 days';
     delete from person_link where expires_at < now();
     delete from known_device where seen_at < now() - interval '1 year';
     update intake set old_secret = null, old_secret_until = null where old_secret_until < now();
     delete from idempotency where at < now() - interval '1 day';
     delete from job_worker where seen_at < now() - interval '1 day';
     delete from wrong_try where last_at < now() - interval '1 hour';
     delete from counter where name like 'day %' and right(name, 10) < (now() - interval '7 days')::date::text $$;
