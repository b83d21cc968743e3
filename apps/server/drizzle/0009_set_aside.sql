ALTER TABLE "submission" DROP CONSTRAINT "submission_state";--> statement-breakpoint
ALTER TABLE "submission" ADD COLUMN "suspicion" jsonb;--> statement-breakpoint
ALTER TABLE "workspace" ADD COLUMN "blocked_words" text[] DEFAULT '{}'::text[] NOT NULL;--> statement-breakpoint
ALTER TABLE "workspace" ADD COLUMN "blocked_domains" text[] DEFAULT '{}'::text[] NOT NULL;--> statement-breakpoint
ALTER TABLE "submission" ADD CONSTRAINT "submission_state" CHECK ("submission"."state" in ('waiting', 'routed', 'set-aside'));--> statement-breakpoint
grant update (suspicion) on submission to haycart_server;
