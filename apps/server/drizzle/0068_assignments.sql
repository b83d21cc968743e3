CREATE TABLE "assignment" (
	"workspace_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"record_kind" text NOT NULL,
	"record_id" uuid NOT NULL,
	"attempt_id" uuid,
	"person" text NOT NULL,
	"team" text,
	"shares" jsonb,
	"why" text NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"due_at" timestamp with time zone,
	"touched_at" timestamp with time zone,
	"touched_by" text,
	"missed_at" timestamp with time zone,
	CONSTRAINT "assignment_workspace_id_id_pk" PRIMARY KEY("workspace_id","id"),
	CONSTRAINT "assignment_touched" CHECK (("assignment"."touched_at" is null) = ("assignment"."touched_by" is null))
);
--> statement-breakpoint
ALTER TABLE "pipeline" ADD COLUMN "promise" jsonb;--> statement-breakpoint
ALTER TABLE "team" ADD COLUMN "promise" jsonb;--> statement-breakpoint
ALTER TABLE "assignment" ADD CONSTRAINT "assignment_workspace_id_attempt_id_attempt_workspace_id_id_fk" FOREIGN KEY ("workspace_id","attempt_id") REFERENCES "public"."attempt"("workspace_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "assignment_record" ON "assignment" USING btree ("workspace_id","record_id","at");--> statement-breakpoint
CREATE INDEX "assignment_at" ON "assignment" USING btree ("workspace_id","at","id");--> statement-breakpoint
CREATE INDEX "assignment_open" ON "assignment" USING btree ("workspace_id","due_at") WHERE touched_at is null and due_at is not null;--> statement-breakpoint
CREATE INDEX "assignment_due" ON "assignment" USING btree ("workspace_id","due_at") WHERE touched_at is null and missed_at is null and due_at is not null;--> statement-breakpoint
alter table assignment enable row level security;--> statement-breakpoint
create policy closed on assignment to haycart_server using (workspace_id = (select current_workspace()));--> statement-breakpoint
grant select, insert, update, delete on assignment to haycart_server;
