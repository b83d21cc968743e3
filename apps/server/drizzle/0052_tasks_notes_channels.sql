CREATE TABLE "channel" (
	"workspace_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"key" text NOT NULL,
	"name" text NOT NULL,
	"by" text NOT NULL,
	"address" text,
	"number" text,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "channel_workspace_id_id_pk" PRIMARY KEY("workspace_id","id"),
	CONSTRAINT "channel_key" UNIQUE("workspace_id","key"),
	CONSTRAINT "channel_name" UNIQUE("workspace_id","name"),
	CONSTRAINT "channel_reached" CHECK (case "channel"."by" when 'chat' then "channel"."address" is not null when 'text' then "channel"."number" is not null end)
);
--> statement-breakpoint
CREATE TABLE "text_gateway" (
	"workspace_id" uuid NOT NULL,
	"address" text NOT NULL,
	"set_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "text_gateway_workspace_id_pk" PRIMARY KEY("workspace_id")
);
--> statement-breakpoint
DROP INDEX "task_open";--> statement-breakpoint
ALTER TABLE "note" ADD COLUMN "title" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "note" ADD COLUMN "attempt_id" uuid;--> statement-breakpoint
ALTER TABLE "note" ADD COLUMN "effect" integer;--> statement-breakpoint
ALTER TABLE "task" ADD COLUMN "body" text;--> statement-breakpoint
ALTER TABLE "task" ADD COLUMN "priority" text DEFAULT 'normal' NOT NULL;--> statement-breakpoint
ALTER TABLE "task" ADD COLUMN "due_at" timestamp with time zone;--> statement-breakpoint
ALTER TABLE "task" ADD COLUMN "until" timestamp with time zone GENERATED ALWAYS AS (coalesce(due_at, (due + 1)::timestamp at time zone 'UTC')) STORED;--> statement-breakpoint
ALTER TABLE "task" ADD COLUMN "changed_at" timestamp with time zone;--> statement-breakpoint
ALTER TABLE "task" ADD COLUMN "attempt_id" uuid;--> statement-breakpoint
ALTER TABLE "task" ADD COLUMN "effect" integer;--> statement-breakpoint
ALTER TABLE "person" ADD COLUMN "phone" text;--> statement-breakpoint
ALTER TABLE "note" ADD CONSTRAINT "note_workspace_id_attempt_id_attempt_workspace_id_id_fk" FOREIGN KEY ("workspace_id","attempt_id") REFERENCES "public"."attempt"("workspace_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "task" ADD CONSTRAINT "task_workspace_id_attempt_id_attempt_workspace_id_id_fk" FOREIGN KEY ("workspace_id","attempt_id") REFERENCES "public"."attempt"("workspace_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "task_done" ON "task" USING btree ("workspace_id","done_at","id") WHERE done_at is not null;--> statement-breakpoint
CREATE INDEX "task_open" ON "task" USING btree ("workspace_id","owner","until","id") WHERE done_at is null;--> statement-breakpoint
ALTER TABLE "note" ADD CONSTRAINT "note_attempt" UNIQUE("workspace_id","attempt_id","effect");--> statement-breakpoint
ALTER TABLE "task" ADD CONSTRAINT "task_attempt" UNIQUE("workspace_id","attempt_id","effect");--> statement-breakpoint
ALTER TABLE "task" ADD CONSTRAINT "task_due" CHECK ("task"."due" is null or "task"."due_at" is null);--> statement-breakpoint
ALTER TABLE "task" ADD CONSTRAINT "task_priority" CHECK ("task"."priority" in ('low', 'normal', 'high'));--> statement-breakpoint
alter table channel enable row level security;--> statement-breakpoint
create policy closed on channel to haycart_server using (workspace_id = (select current_workspace()));--> statement-breakpoint
grant select, insert, update, delete on channel to haycart_server;--> statement-breakpoint
create trigger revision after insert or delete or update on channel for each statement execute function count_revision();--> statement-breakpoint
alter table text_gateway enable row level security;--> statement-breakpoint
create policy closed on text_gateway to haycart_server using (workspace_id = (select current_workspace()));--> statement-breakpoint
grant select, insert, update, delete on text_gateway to haycart_server;
