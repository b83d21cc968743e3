CREATE TABLE "field" (
	"workspace_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"record" text NOT NULL,
	"key" text NOT NULL,
	"built_in" boolean DEFAULT false NOT NULL,
	"label" text NOT NULL,
	"type" text NOT NULL,
	"required" boolean DEFAULT false NOT NULL,
	"options" jsonb,
	"help" text,
	"position" integer DEFAULT 0 NOT NULL,
	CONSTRAINT "field_workspace_id_id_pk" PRIMARY KEY("workspace_id","id"),
	CONSTRAINT "field_key" UNIQUE("workspace_id","record","key")
);
--> statement-breakpoint
CREATE TABLE "intake" (
	"workspace_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"key" text NOT NULL,
	"kind" text NOT NULL,
	"name" text NOT NULL,
	"state" text DEFAULT 'live' NOT NULL,
	"slug" text,
	"form" jsonb,
	"secret" text,
	"per_minute" integer DEFAULT 600,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "intake_workspace_id_id_pk" PRIMARY KEY("workspace_id","id"),
	CONSTRAINT "intake_key_unique" UNIQUE("key"),
	CONSTRAINT "intake_slug_unique" UNIQUE("slug"),
	CONSTRAINT "intake_name" UNIQUE("workspace_id","name"),
	CONSTRAINT "intake_form" CHECK (("intake"."kind" = 'form') = ("intake"."form" is not null and "intake"."slug" is not null))
);
--> statement-breakpoint
CREATE TABLE "pipeline" (
	"workspace_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"key" text NOT NULL,
	"name" text NOT NULL,
	"record" text NOT NULL,
	"position" integer NOT NULL,
	CONSTRAINT "pipeline_workspace_id_id_pk" PRIMARY KEY("workspace_id","id"),
	CONSTRAINT "pipeline_key" UNIQUE("workspace_id","key"),
	CONSTRAINT "pipeline_record" CHECK ("pipeline"."record" in ('deal', 'lead'))
);
--> statement-breakpoint
CREATE TABLE "stage" (
	"workspace_id" uuid NOT NULL,
	"pipeline_key" text NOT NULL,
	"key" text NOT NULL,
	"name" text NOT NULL,
	"state" text NOT NULL,
	"position" integer NOT NULL,
	CONSTRAINT "stage_workspace_id_pipeline_key_key_pk" PRIMARY KEY("workspace_id","pipeline_key","key"),
	CONSTRAINT "stage_state" CHECK ("stage"."state" in ('open', 'won', 'lost'))
);
--> statement-breakpoint
CREATE TABLE "company" (
	"workspace_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"number" bigint NOT NULL,
	"owner_id" uuid,
	"tags" text[] DEFAULT '{}' NOT NULL,
	"custom" jsonb DEFAULT '{}'::jsonb NOT NULL,
	"written_at" jsonb DEFAULT '{}'::jsonb NOT NULL,
	"created_at" timestamp with time zone NOT NULL,
	"updated_at" timestamp with time zone NOT NULL,
	"name" text NOT NULL,
	"domain" text,
	"website" text,
	"phone" text,
	"country" text,
	"source" text,
	CONSTRAINT "company_workspace_id_id_pk" PRIMARY KEY("workspace_id","id"),
	CONSTRAINT "company_number" UNIQUE("workspace_id","number")
);
--> statement-breakpoint
CREATE TABLE "contact" (
	"workspace_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"number" bigint NOT NULL,
	"owner_id" uuid,
	"tags" text[] DEFAULT '{}' NOT NULL,
	"custom" jsonb DEFAULT '{}'::jsonb NOT NULL,
	"written_at" jsonb DEFAULT '{}'::jsonb NOT NULL,
	"created_at" timestamp with time zone NOT NULL,
	"updated_at" timestamp with time zone NOT NULL,
	"first_name" text,
	"last_name" text,
	"full_name" text,
	"email" text,
	"emails" text[],
	"phone" text,
	"phones" text[],
	"job_title" text,
	"country" text,
	"source" text,
	CONSTRAINT "contact_workspace_id_id_pk" PRIMARY KEY("workspace_id","id"),
	CONSTRAINT "contact_number" UNIQUE("workspace_id","number")
);
--> statement-breakpoint
CREATE TABLE "deal" (
	"workspace_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"number" bigint NOT NULL,
	"owner_id" uuid,
	"tags" text[] DEFAULT '{}' NOT NULL,
	"custom" jsonb DEFAULT '{}'::jsonb NOT NULL,
	"written_at" jsonb DEFAULT '{}'::jsonb NOT NULL,
	"created_at" timestamp with time zone NOT NULL,
	"updated_at" timestamp with time zone NOT NULL,
	"name" text NOT NULL,
	"value_amount" bigint,
	"value_currency" text,
	"message" text,
	"source" text,
	"pipeline" text NOT NULL,
	"stage" text NOT NULL,
	"status" text NOT NULL,
	"stage_since" timestamp with time zone NOT NULL,
	"closed_at" timestamp with time zone,
	CONSTRAINT "deal_workspace_id_id_pk" PRIMARY KEY("workspace_id","id"),
	CONSTRAINT "deal_number" UNIQUE("workspace_id","number"),
	CONSTRAINT "deal_status" CHECK ("deal"."status" in ('open', 'won', 'lost')),
	CONSTRAINT "deal_value" CHECK (("deal"."value_amount" is null) = ("deal"."value_currency" is null))
);
--> statement-breakpoint
CREATE TABLE "identity_key" (
	"workspace_id" uuid NOT NULL,
	"record_kind" text NOT NULL,
	"key_kind" text NOT NULL,
	"value" text NOT NULL,
	"record_id" uuid NOT NULL,
	CONSTRAINT "identity_key_workspace_id_record_kind_key_kind_value_record_id_pk" PRIMARY KEY("workspace_id","record_kind","key_kind","value","record_id")
);
--> statement-breakpoint
CREATE TABLE "lead" (
	"workspace_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"number" bigint NOT NULL,
	"owner_id" uuid,
	"tags" text[] DEFAULT '{}' NOT NULL,
	"custom" jsonb DEFAULT '{}'::jsonb NOT NULL,
	"written_at" jsonb DEFAULT '{}'::jsonb NOT NULL,
	"created_at" timestamp with time zone NOT NULL,
	"updated_at" timestamp with time zone NOT NULL,
	"name" text NOT NULL,
	"email" text,
	"phone" text,
	"company_name" text,
	"message" text,
	"source" text,
	"pipeline" text,
	"stage" text,
	"status" text,
	"stage_since" timestamp with time zone,
	CONSTRAINT "lead_workspace_id_id_pk" PRIMARY KEY("workspace_id","id"),
	CONSTRAINT "lead_number" UNIQUE("workspace_id","number")
);
--> statement-breakpoint
CREATE TABLE "record_change" (
	"workspace_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"record_kind" text NOT NULL,
	"record_id" uuid NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"cause_kind" text NOT NULL,
	"cause_id" uuid NOT NULL,
	"diff" jsonb NOT NULL,
	CONSTRAINT "record_change_workspace_id_id_pk" PRIMARY KEY("workspace_id","id")
);
--> statement-breakpoint
CREATE TABLE "record_counter" (
	"workspace_id" uuid NOT NULL,
	"record_kind" text NOT NULL,
	"last" bigint NOT NULL,
	CONSTRAINT "record_counter_workspace_id_record_kind_pk" PRIMARY KEY("workspace_id","record_kind")
);
--> statement-breakpoint
CREATE TABLE "record_link" (
	"workspace_id" uuid NOT NULL,
	"from_kind" text NOT NULL,
	"from_id" uuid NOT NULL,
	"to_kind" text NOT NULL,
	"to_id" uuid NOT NULL,
	"at" timestamp with time zone NOT NULL,
	CONSTRAINT "record_link_workspace_id_from_id_to_id_pk" PRIMARY KEY("workspace_id","from_id","to_id")
);
--> statement-breakpoint
CREATE TABLE "touch" (
	"workspace_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"record_kind" text NOT NULL,
	"record_id" uuid NOT NULL,
	"run_id" uuid NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"channel" text NOT NULL,
	"source" text NOT NULL,
	"medium" text,
	"campaign" text,
	"page" text,
	CONSTRAINT "touch_workspace_id_id_pk" PRIMARY KEY("workspace_id","id")
);
--> statement-breakpoint
CREATE TABLE "route" (
	"workspace_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"name" text NOT NULL,
	"state" text DEFAULT 'paused' NOT NULL,
	"draft" jsonb NOT NULL,
	"draft_saved_at" timestamp with time zone DEFAULT now() NOT NULL,
	"version" integer,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "route_workspace_id_id_pk" PRIMARY KEY("workspace_id","id"),
	CONSTRAINT "route_live_is_published" CHECK ("route"."state" <> 'live' or "route"."version" is not null)
);
--> statement-breakpoint
CREATE TABLE "route_version" (
	"workspace_id" uuid NOT NULL,
	"route_id" uuid NOT NULL,
	"version" integer NOT NULL,
	"definition" jsonb NOT NULL,
	"note" text,
	"published_by" text NOT NULL,
	"published_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "route_version_workspace_id_route_id_version_pk" PRIMARY KEY("workspace_id","route_id","version")
);
--> statement-breakpoint
CREATE TABLE "run" (
	"workspace_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"submission_id" uuid NOT NULL,
	"route_id" uuid NOT NULL,
	"version" integer NOT NULL,
	"outcome" text NOT NULL,
	"reason_code" text,
	"summary" text NOT NULL,
	"plan" json,
	"started_at" timestamp with time zone NOT NULL,
	"finished_at" timestamp with time zone NOT NULL,
	CONSTRAINT "run_workspace_id_id_pk" PRIMARY KEY("workspace_id","id"),
	CONSTRAINT "run_once" UNIQUE("workspace_id","submission_id","route_id"),
	CONSTRAINT "run_outcome" CHECK ("run"."outcome" in ('written', 'held', 'skipped', 'failed', 'taken-back'))
);
--> statement-breakpoint
CREATE TABLE "idempotency" (
	"workspace_id" uuid NOT NULL,
	"intake_id" uuid NOT NULL,
	"key" text NOT NULL,
	"body_hash" text NOT NULL,
	"submission_ids" uuid[] NOT NULL,
	"at" timestamp with time zone NOT NULL,
	CONSTRAINT "idempotency_workspace_id_intake_id_key_pk" PRIMARY KEY("workspace_id","intake_id","key")
);
--> statement-breakpoint
CREATE TABLE "submission" (
	"workspace_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"intake_id" uuid NOT NULL,
	"received_at" timestamp with time zone NOT NULL,
	"format" text NOT NULL,
	"body" "bytea" NOT NULL,
	"visit" jsonb NOT NULL,
	"state" text DEFAULT 'waiting' NOT NULL,
	"due_at" timestamp with time zone NOT NULL,
	"tries" integer DEFAULT 0 NOT NULL,
	"turns" integer DEFAULT 0 NOT NULL,
	CONSTRAINT "submission_workspace_id_id_pk" PRIMARY KEY("workspace_id","id"),
	CONSTRAINT "submission_state" CHECK ("submission"."state" in ('waiting', 'routed'))
);
--> statement-breakpoint
CREATE TABLE "submission_file" (
	"workspace_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"submission_id" uuid NOT NULL,
	"name" text NOT NULL,
	"type" text NOT NULL,
	"bytes" "bytea" NOT NULL,
	CONSTRAINT "submission_file_workspace_id_id_pk" PRIMARY KEY("workspace_id","id")
);
--> statement-breakpoint
CREATE TABLE "api_token" (
	"workspace_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"name" text NOT NULL,
	"hash" text NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "api_token_workspace_id_id_pk" PRIMARY KEY("workspace_id","id"),
	CONSTRAINT "api_token_hash_unique" UNIQUE("hash")
);
--> statement-breakpoint
CREATE TABLE "person" (
	"workspace_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"name" text NOT NULL,
	"email" text NOT NULL,
	"password_hash" text NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "person_workspace_id_id_pk" PRIMARY KEY("workspace_id","id")
);
--> statement-breakpoint
CREATE TABLE "session" (
	"workspace_id" uuid NOT NULL,
	"hash" text NOT NULL,
	"person_id" uuid NOT NULL,
	"expires_at" timestamp with time zone NOT NULL,
	CONSTRAINT "session_workspace_id_hash_pk" PRIMARY KEY("workspace_id","hash"),
	CONSTRAINT "session_hash" UNIQUE("hash")
);
--> statement-breakpoint
CREATE TABLE "sign_in_try" (
	"subject" text NOT NULL,
	"window_start" timestamp with time zone NOT NULL,
	"tries" integer NOT NULL,
	CONSTRAINT "sign_in_try_subject_window_start_pk" PRIMARY KEY("subject","window_start")
);
--> statement-breakpoint
CREATE TABLE "team" (
	"workspace_id" uuid NOT NULL,
	"key" text NOT NULL,
	"name" text NOT NULL,
	CONSTRAINT "team_workspace_id_key_pk" PRIMARY KEY("workspace_id","key")
);
--> statement-breakpoint
CREATE TABLE "team_member" (
	"workspace_id" uuid NOT NULL,
	"team_key" text NOT NULL,
	"person_id" uuid NOT NULL,
	CONSTRAINT "team_member_workspace_id_team_key_person_id_pk" PRIMARY KEY("workspace_id","team_key","person_id")
);
--> statement-breakpoint
CREATE TABLE "workspace" (
	"id" uuid PRIMARY KEY NOT NULL,
	"key" text NOT NULL,
	"name" text NOT NULL,
	"default_country" text NOT NULL,
	"default_currency" text NOT NULL,
	"revision" integer DEFAULT 0 NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "workspace_key_unique" UNIQUE("key")
);
--> statement-breakpoint
ALTER TABLE "stage" ADD CONSTRAINT "stage_workspace_id_pipeline_key_pipeline_workspace_id_key_fk" FOREIGN KEY ("workspace_id","pipeline_key") REFERENCES "public"."pipeline"("workspace_id","key") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "deal" ADD CONSTRAINT "deal_workspace_id_pipeline_stage_stage_workspace_id_pipeline_key_key_fk" FOREIGN KEY ("workspace_id","pipeline","stage") REFERENCES "public"."stage"("workspace_id","pipeline_key","key") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "route_version" ADD CONSTRAINT "route_version_workspace_id_route_id_route_workspace_id_id_fk" FOREIGN KEY ("workspace_id","route_id") REFERENCES "public"."route"("workspace_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "run" ADD CONSTRAINT "run_workspace_id_submission_id_submission_workspace_id_id_fk" FOREIGN KEY ("workspace_id","submission_id") REFERENCES "public"."submission"("workspace_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "run" ADD CONSTRAINT "run_workspace_id_route_id_version_route_version_workspace_id_route_id_version_fk" FOREIGN KEY ("workspace_id","route_id","version") REFERENCES "public"."route_version"("workspace_id","route_id","version") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "submission" ADD CONSTRAINT "submission_workspace_id_intake_id_intake_workspace_id_id_fk" FOREIGN KEY ("workspace_id","intake_id") REFERENCES "public"."intake"("workspace_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "submission_file" ADD CONSTRAINT "submission_file_workspace_id_submission_id_submission_workspace_id_id_fk" FOREIGN KEY ("workspace_id","submission_id") REFERENCES "public"."submission"("workspace_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "api_token" ADD CONSTRAINT "api_token_workspace_id_workspace_id_fk" FOREIGN KEY ("workspace_id") REFERENCES "public"."workspace"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "person" ADD CONSTRAINT "person_workspace_id_workspace_id_fk" FOREIGN KEY ("workspace_id") REFERENCES "public"."workspace"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "session" ADD CONSTRAINT "session_workspace_id_person_id_person_workspace_id_id_fk" FOREIGN KEY ("workspace_id","person_id") REFERENCES "public"."person"("workspace_id","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "team" ADD CONSTRAINT "team_workspace_id_workspace_id_fk" FOREIGN KEY ("workspace_id") REFERENCES "public"."workspace"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "team_member" ADD CONSTRAINT "team_member_workspace_id_team_key_team_workspace_id_key_fk" FOREIGN KEY ("workspace_id","team_key") REFERENCES "public"."team"("workspace_id","key") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "team_member" ADD CONSTRAINT "team_member_workspace_id_person_id_person_workspace_id_id_fk" FOREIGN KEY ("workspace_id","person_id") REFERENCES "public"."person"("workspace_id","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "company_updated" ON "company" USING btree ("workspace_id","updated_at" DESC NULLS FIRST,"id" DESC NULLS FIRST);--> statement-breakpoint
CREATE INDEX "contact_updated" ON "contact" USING btree ("workspace_id","updated_at" DESC NULLS FIRST,"id" DESC NULLS FIRST);--> statement-breakpoint
CREATE INDEX "deal_place" ON "deal" USING btree ("workspace_id","pipeline","status","stage","stage_since" DESC NULLS FIRST);--> statement-breakpoint
CREATE UNIQUE INDEX "identity_key_unique" ON "identity_key" USING btree ("workspace_id","record_kind","key_kind","value") WHERE key_kind in ('email', 'domain', 'external-id') and record_kind <> 'lead';--> statement-breakpoint
CREATE INDEX "record_change_record" ON "record_change" USING btree ("workspace_id","record_id","at" DESC NULLS FIRST);--> statement-breakpoint
CREATE INDEX "record_change_cause" ON "record_change" USING btree ("workspace_id","cause_id");--> statement-breakpoint
CREATE INDEX "record_link_to" ON "record_link" USING btree ("workspace_id","to_id");--> statement-breakpoint
CREATE INDEX "touch_record" ON "touch" USING btree ("workspace_id","record_id","at");--> statement-breakpoint
CREATE INDEX "run_finished" ON "run" USING btree ("workspace_id","finished_at" DESC NULLS FIRST);--> statement-breakpoint
CREATE INDEX "run_unsettled" ON "run" USING btree ("workspace_id","route_id","outcome") WHERE outcome in ('held', 'failed');--> statement-breakpoint
CREATE INDEX "idempotency_at" ON "idempotency" USING btree ("workspace_id","at");--> statement-breakpoint
CREATE INDEX "submission_waiting" ON "submission" USING btree ("workspace_id","due_at","id") WHERE state = 'waiting';--> statement-breakpoint
CREATE INDEX "submission_received" ON "submission" USING btree ("workspace_id","received_at" DESC NULLS FIRST,"id" DESC NULLS FIRST);--> statement-breakpoint
CREATE INDEX "submission_of_intake" ON "submission" USING btree ("workspace_id","intake_id","received_at" DESC NULLS FIRST,"id" DESC NULLS FIRST);--> statement-breakpoint
CREATE UNIQUE INDEX "person_email" ON "person" USING btree ("workspace_id",lower("email"));