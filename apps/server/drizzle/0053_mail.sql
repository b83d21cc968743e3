CREATE TABLE "mail_server" (
	"workspace_id" uuid NOT NULL,
	"host" text NOT NULL,
	"port" integer NOT NULL,
	"security" text NOT NULL,
	"user_name" text,
	"password" text,
	"from_name" text NOT NULL,
	"from_address" text NOT NULL,
	"reply_to" text,
	"set_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "mail_server_workspace_id_pk" PRIMARY KEY("workspace_id"),
	CONSTRAINT "mail_server_security" CHECK ("mail_server"."security" in ('tls', 'starttls', 'none'))
);
--> statement-breakpoint
CREATE TABLE "mail_template" (
	"workspace_id" uuid NOT NULL,
	"key" text NOT NULL,
	"name" text NOT NULL,
	"subject" text NOT NULL,
	"text" text NOT NULL,
	"html" text,
	"changed_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "mail_template_workspace_id_key_pk" PRIMARY KEY("workspace_id","key"),
	CONSTRAINT "mail_template_name" UNIQUE("workspace_id","name")
);
--> statement-breakpoint
ALTER TABLE "outbox" ADD COLUMN "record_kind" text;--> statement-breakpoint
ALTER TABLE "outbox" ADD COLUMN "record_id" uuid;--> statement-breakpoint
CREATE INDEX "outbox_record" ON "outbox" USING btree ("workspace_id","record_id","created_at") WHERE record_id is not null;--> statement-breakpoint
alter table mail_server enable row level security;--> statement-breakpoint
create policy closed on mail_server to haycart_server using (workspace_id = (select current_workspace()));--> statement-breakpoint
grant select, insert, update, delete on mail_server to haycart_server;--> statement-breakpoint
alter table mail_template enable row level security;--> statement-breakpoint
create policy closed on mail_template to haycart_server using (workspace_id = (select current_workspace()));--> statement-breakpoint
grant select, insert, update, delete on mail_template to haycart_server;--> statement-breakpoint
create trigger revision after insert or delete or update on mail_template for each statement execute function count_revision();
