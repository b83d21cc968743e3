ALTER TABLE "outbox" DROP CONSTRAINT "outbox_state";--> statement-breakpoint
ALTER TABLE "mail_server" ADD COLUMN "return_domain" text;--> statement-breakpoint
ALTER TABLE "outbox" ADD CONSTRAINT "outbox_state" CHECK ("outbox"."state" in ('waiting', 'done', 'given-up', 'cancelled', 'returned'));--> statement-breakpoint
create function gate_workspace_of_outgoing(sought uuid) returns table (id uuid) language sql stable security definer set search_path = public as
  $$ select w.id from workspace w where exists (select 1 from outbox o where o.workspace_id = w.id and o.id = sought) $$;--> statement-breakpoint
revoke all on function gate_workspace_of_outgoing(uuid) from public;--> statement-breakpoint
grant execute on function gate_workspace_of_outgoing(uuid) to haycart_server;
