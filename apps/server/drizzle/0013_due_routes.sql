ALTER TABLE "submission" ADD COLUMN "due_routes" uuid[];--> statement-breakpoint
grant update (due_routes) on submission to haycart_server;
