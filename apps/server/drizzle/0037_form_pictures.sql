CREATE TABLE "form_picture" (
	"workspace_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"type" text NOT NULL,
	"hash" "bytea" NOT NULL,
	"bytes" "bytea" NOT NULL,
	"by" text NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "form_picture_workspace_id_id_pk" PRIMARY KEY("workspace_id","id"),
	CONSTRAINT "form_picture_id_unique" UNIQUE("id"),
	CONSTRAINT "form_picture_once" UNIQUE("workspace_id","hash")
);
--> statement-breakpoint
ALTER TABLE "intake" ADD COLUMN "copied_from" uuid;--> statement-breakpoint
ALTER TABLE "intake" ADD CONSTRAINT "intake_workspace_id_copied_from_intake_workspace_id_id_fk" FOREIGN KEY ("workspace_id","copied_from") REFERENCES "public"."intake"("workspace_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
alter table form_picture enable row level security;--> statement-breakpoint
create policy closed on form_picture to haycart_server using (workspace_id = (select current_workspace()));--> statement-breakpoint
grant select, insert on form_picture to haycart_server;--> statement-breakpoint
create function gate_form_picture(picture uuid) returns table (type text, bytes bytea) language sql stable security definer set search_path = public as
  $$ select type, bytes from form_picture where id = picture $$;--> statement-breakpoint
revoke all on function gate_form_picture(uuid) from public;--> statement-breakpoint
grant execute on function gate_form_picture(uuid) to haycart_server;
