CREATE TABLE "journey" (
	"workspace_id" uuid NOT NULL,
	"record_id" uuid NOT NULL,
	"nr" integer NOT NULL,
	"generation" bigint NOT NULL,
	"record_kind" text,
	"made_at" timestamp with time zone,
	"won_at" timestamp with time zone,
	"amount" bigint,
	"currency" text,
	"steps" "bytea" NOT NULL,
	CONSTRAINT "journey_workspace_id_record_id_pk" PRIMARY KEY("workspace_id","record_id")
);
--> statement-breakpoint
ALTER TABLE "channel_rules" ADD COLUMN "apart" jsonb DEFAULT '[]'::jsonb NOT NULL;--> statement-breakpoint
CREATE UNIQUE INDEX "journey_nr" ON "journey" USING btree ("workspace_id","nr");--> statement-breakpoint
CREATE INDEX "journey_generation" ON "journey" USING btree ("workspace_id","generation");--> statement-breakpoint
ALTER TABLE "journey_step" DROP COLUMN "in_30";--> statement-breakpoint
ALTER TABLE "journey_step" DROP COLUMN "in_90";--> statement-breakpoint
ALTER TABLE "journey_step" DROP COLUMN "in_365";--> statement-breakpoint
ALTER TABLE "journey_step" DROP COLUMN "fade_7";--> statement-breakpoint
ALTER TABLE "journey_step" DROP COLUMN "fade_14";--> statement-breakpoint
ALTER TABLE "journey_step" DROP COLUMN "fade_30";--> statement-breakpoint
ALTER TABLE "journey_step" DROP COLUMN "fade_90";--> statement-breakpoint
alter table journey enable row level security;--> statement-breakpoint
create policy closed on journey to haycart_server using (workspace_id = (select current_workspace()));--> statement-breakpoint
grant select, insert, update, delete on journey to haycart_server;--> statement-breakpoint
insert into journey (workspace_id, record_id, nr, generation, record_kind, made_at, won_at, amount, currency, steps)
select workspace_id, record_id, row_number() over (partition by workspace_id order by min(made_at), record_id), 1,
  min(record_kind), min(made_at), min(won_at), min(amount), min(currency),
  coalesce(string_agg(int2send((level * 16 + to_basis * 4 + basis)::smallint) || int4send(source_id) || float8send(date_part('epoch', at)),
    ''::bytea order by basis, back) filter (where source_id is not null), '')
from journey_step group by 1, 2;
