CREATE TABLE "entry_link" (
	"workspace_id" uuid NOT NULL,
	"intake_id" uuid NOT NULL,
	"person_id" uuid NOT NULL,
	"secret" text NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "entry_link_workspace_id_intake_id_person_id_pk" PRIMARY KEY("workspace_id","intake_id","person_id"),
	CONSTRAINT "entry_link_secret_unique" UNIQUE("secret")
);
--> statement-breakpoint
CREATE TABLE "form_domain" (
	"workspace_id" uuid NOT NULL,
	"host" text NOT NULL,
	"proof" text NOT NULL,
	"proven_at" timestamp with time zone,
	"checked_at" timestamp with time zone,
	"problem" text,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "form_domain_workspace_id_host_pk" PRIMARY KEY("workspace_id","host")
);
--> statement-breakpoint
ALTER TABLE "intake" ADD COLUMN "trial" jsonb;--> statement-breakpoint
ALTER TABLE "intake" ADD COLUMN "for_colleagues" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "entry_link" ADD CONSTRAINT "entry_link_workspace_id_intake_id_intake_workspace_id_id_fk" FOREIGN KEY ("workspace_id","intake_id") REFERENCES "public"."intake"("workspace_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "entry_link" ADD CONSTRAINT "entry_link_workspace_id_person_id_person_workspace_id_id_fk" FOREIGN KEY ("workspace_id","person_id") REFERENCES "public"."person"("workspace_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE UNIQUE INDEX "form_domain_proven" ON "form_domain" USING btree ("host") WHERE "form_domain"."proven_at" is not null;--> statement-breakpoint
CREATE INDEX "submission_entered" ON "submission" USING btree ("workspace_id","intake_id",(visit ->> 'enteredBy'),"received_at") WHERE visit ? 'enteredBy';--> statement-breakpoint
do $$ declare t text; begin
  foreach t in array array['entry_link', 'form_domain'] loop
    execute format('alter table %I enable row level security', t);
    execute format('create policy closed on %I to haycart_server using (workspace_id = (select current_workspace()))', t);
    execute format('grant select, insert, update, delete on %I to haycart_server', t);
  end loop;
end $$;--> statement-breakpoint
create function gate_entry(link_secret text) returns table (workspace_id uuid, intake_id uuid, person_id uuid, person_key text, person_name text) language sql stable security definer set search_path = public as
  $$ select e.workspace_id, e.intake_id, p.id, p.key, p.name from entry_link e
     join person p on p.workspace_id = e.workspace_id and p.id = e.person_id where e.secret = link_secret and p.active $$;--> statement-breakpoint
create function gate_form_domains() returns table (host text, workspace_id uuid) language sql stable security definer set search_path = public as
  $$ select host, workspace_id from form_domain where proven_at is not null $$;--> statement-breakpoint
revoke all on function gate_entry(text), gate_form_domains() from public;--> statement-breakpoint
grant execute on function gate_entry(text), gate_form_domains() to haycart_server;
