ALTER TABLE "submission" ADD COLUMN "quiet" boolean DEFAULT false NOT NULL;--> statement-breakpoint
grant update (quiet) on submission to haycart_server;
