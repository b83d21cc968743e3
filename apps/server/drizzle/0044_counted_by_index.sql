DROP INDEX "stage_move_pipeline";--> statement-breakpoint
DROP INDEX "look_alike_open";--> statement-breakpoint
DROP INDEX "deal_place";--> statement-breakpoint
CREATE INDEX "stage_move_to" ON "stage_move" USING btree ("workspace_id","pipeline","to_stage");--> statement-breakpoint
CREATE INDEX "deal_created" ON "deal" USING btree ("workspace_id","created_at","value_currency","value_amount");--> statement-breakpoint
CREATE INDEX "look_alike_open" ON "look_alike" USING btree ("workspace_id","state","record_kind","probability" DESC NULLS FIRST,"one_id","other_id") WHERE state in ('open', 'later');--> statement-breakpoint
CREATE INDEX "deal_place" ON "deal" USING btree ("workspace_id","pipeline","status","stage","stage_since" DESC NULLS FIRST,"value_currency","value_amount");