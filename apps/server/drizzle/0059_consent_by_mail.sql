CREATE TABLE "consent_link" (
	"workspace_id" uuid NOT NULL,
	"hash" text NOT NULL,
	"mail_key" text NOT NULL,
	"contact_id" uuid NOT NULL,
	"address" text NOT NULL,
	"channel" text NOT NULL,
	"says" text NOT NULL,
	"made_at" timestamp with time zone DEFAULT now() NOT NULL,
	"expires_at" timestamp with time zone,
	"used_at" timestamp with time zone,
	CONSTRAINT "consent_link_workspace_id_hash_pk" PRIMARY KEY("workspace_id","hash"),
	CONSTRAINT "consent_link_hash_unique" UNIQUE("hash")
);
--> statement-breakpoint
ALTER TABLE "consent" ADD COLUMN "attempt_id" uuid;--> statement-breakpoint
ALTER TABLE "consent" ADD COLUMN "effect" integer;--> statement-breakpoint
CREATE INDEX "consent_link_contact" ON "consent_link" USING btree ("workspace_id","contact_id","made_at");--> statement-breakpoint
ALTER TABLE "consent" ADD CONSTRAINT "consent_workspace_id_attempt_id_attempt_workspace_id_id_fk" FOREIGN KEY ("workspace_id","attempt_id") REFERENCES "public"."attempt"("workspace_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "consent" ADD CONSTRAINT "consent_attempt" UNIQUE("workspace_id","attempt_id","effect");--> statement-breakpoint
alter table consent_link enable row level security;--> statement-breakpoint
create policy closed on consent_link to haycart_server using (workspace_id = (select current_workspace()));--> statement-breakpoint
grant select, insert, update on consent_link to haycart_server;--> statement-breakpoint
create function gate_consent_link(link_hash text) returns table (workspace_id uuid) language sql stable security definer set search_path = public as
  $$ select workspace_id from consent_link where hash = link_hash $$;--> statement-breakpoint
revoke all on function gate_consent_link(text) from public;--> statement-breakpoint
grant execute on function gate_consent_link(text) to haycart_server;
