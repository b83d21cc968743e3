-- What rows of a decision table took is told by whom and when since; what was found before is counted again when somebody asks.
update route_comparison set tables = '[]'::jsonb;--> statement-breakpoint
-- Rates decide who is next where a team goes by value, so that what is kept of a workspace in memory is read again with them.
create trigger revision after insert or delete or update on exchange_rate for each statement execute function count_revision();
