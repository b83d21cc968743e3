CREATE TABLE "mail_file" (
	"workspace_id" uuid NOT NULL,
	"key" text NOT NULL,
	"name" text NOT NULL,
	"type" text NOT NULL,
	"size" integer NOT NULL,
	"bytes" "bytea" NOT NULL,
	"changed_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "mail_file_workspace_id_key_pk" PRIMARY KEY("workspace_id","key")
);
--> statement-breakpoint
ALTER TABLE "record_file" ALTER COLUMN "bytes" DROP NOT NULL;--> statement-breakpoint
ALTER TABLE "record_file" ADD COLUMN "content" json;--> statement-breakpoint
ALTER TABLE "record_file" ADD COLUMN "attempt_id" uuid;--> statement-breakpoint
ALTER TABLE "record_file" ADD COLUMN "effect" integer;--> statement-breakpoint
ALTER TABLE "record_file" ADD CONSTRAINT "record_file_workspace_id_attempt_id_attempt_workspace_id_id_fk" FOREIGN KEY ("workspace_id","attempt_id") REFERENCES "public"."attempt"("workspace_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "record_file" ADD CONSTRAINT "record_file_attempt" UNIQUE("workspace_id","attempt_id","effect");--> statement-breakpoint
ALTER TABLE "record_file" ADD CONSTRAINT "record_file_holds" CHECK (num_nonnulls("record_file"."bytes", "record_file"."content") = 1);--> statement-breakpoint
alter table mail_file enable row level security;--> statement-breakpoint
create policy closed on mail_file to haycart_server using (workspace_id = (select current_workspace()));--> statement-breakpoint
grant select, insert, update, delete on mail_file to haycart_server;--> statement-breakpoint
create trigger revision after insert or delete or update on mail_file for each statement execute function count_revision();
