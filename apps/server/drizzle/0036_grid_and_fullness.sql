CREATE TABLE "record_fullness" (
	"workspace_id" uuid NOT NULL,
	"record_kind" text NOT NULL,
	"counted_at" timestamp with time zone DEFAULT now() NOT NULL,
	"total" integer NOT NULL,
	"by_field" jsonb NOT NULL,
	CONSTRAINT "record_fullness_workspace_id_record_kind_pk" PRIMARY KEY("workspace_id","record_kind")
);
--> statement-breakpoint
CREATE INDEX "stage_move_from" ON "stage_move" USING btree ("workspace_id","pipeline","at") WHERE from_stage is not null;--> statement-breakpoint
CREATE INDEX "deal_closed" ON "deal" USING btree ("workspace_id","pipeline","closed_at","stage","value_currency","value_amount");--> statement-breakpoint
alter table record_fullness enable row level security;--> statement-breakpoint
create policy closed on record_fullness to haycart_server using (workspace_id = (select current_workspace()));--> statement-breakpoint
grant select, insert, update, delete on record_fullness to haycart_server;
