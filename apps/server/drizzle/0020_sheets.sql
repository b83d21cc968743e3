CREATE TABLE "sheet_file" (
	"workspace_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"intake_id" uuid NOT NULL,
	"name" text NOT NULL,
	"bytes" "bytea" NOT NULL,
	"state" text NOT NULL,
	"columns" jsonb,
	"encoding" text,
	"delimiter" text,
	"looked" integer DEFAULT 0 NOT NULL,
	"kept" integer DEFAULT 0 NOT NULL,
	"refused" integer DEFAULT 0 NOT NULL,
	"problem" text,
	"by" text NOT NULL,
	"at" timestamp with time zone NOT NULL,
	CONSTRAINT "sheet_file_workspace_id_id_pk" PRIMARY KEY("workspace_id","id")
);
--> statement-breakpoint
CREATE TABLE "sheet_refusal" (
	"workspace_id" uuid NOT NULL,
	"file_id" uuid NOT NULL,
	"row" integer NOT NULL,
	"text" text NOT NULL,
	"reason" text NOT NULL,
	CONSTRAINT "sheet_refusal_workspace_id_file_id_row_pk" PRIMARY KEY("workspace_id","file_id","row")
);
--> statement-breakpoint
ALTER TABLE "sheet_file" ADD CONSTRAINT "sheet_file_workspace_id_intake_id_intake_workspace_id_id_fk" FOREIGN KEY ("workspace_id","intake_id") REFERENCES "public"."intake"("workspace_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "sheet_refusal" ADD CONSTRAINT "sheet_refusal_workspace_id_file_id_sheet_file_workspace_id_id_fk" FOREIGN KEY ("workspace_id","file_id") REFERENCES "public"."sheet_file"("workspace_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "sheet_file_intake" ON "sheet_file" USING btree ("workspace_id","intake_id","at");--> statement-breakpoint
CREATE UNIQUE INDEX "sheet_file_reading" ON "sheet_file" USING btree ("workspace_id","id") WHERE state = 'reading';--> statement-breakpoint
alter table sheet_file enable row level security;--> statement-breakpoint
create policy closed on sheet_file to haycart_server using (workspace_id = (select current_workspace()));--> statement-breakpoint
grant select, insert, update, delete on sheet_file to haycart_server;
--> statement-breakpoint
alter table sheet_refusal enable row level security;--> statement-breakpoint
create policy closed on sheet_refusal to haycart_server using (workspace_id = (select current_workspace()));--> statement-breakpoint
grant select, insert, update, delete on sheet_refusal to haycart_server;
