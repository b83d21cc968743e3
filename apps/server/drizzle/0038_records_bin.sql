ALTER TABLE "removed_record" ADD COLUMN "edit_id" uuid;--> statement-breakpoint
ALTER TABLE "removed_record" ADD CONSTRAINT "removed_record_workspace_id_edit_id_record_edit_workspace_id_id_fk" FOREIGN KEY ("workspace_id","edit_id") REFERENCES "public"."record_edit"("workspace_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "removed_record_bin" ON "removed_record" USING btree ("workspace_id","kind","at" DESC NULLS FIRST,"id" DESC NULLS FIRST) WHERE edit_id is not null;--> statement-breakpoint
update removed_record x set edit_id = c.cause_id
from removed_record y cross join lateral (
  select cause_kind, cause_id from record_change
  where workspace_id = y.workspace_id and record_id = y.id and diff -> 'removed' ? y.id::text
  order by at desc, id desc limit 1
) c
where x.workspace_id = y.workspace_id and x.id = y.id and c.cause_kind = 'person'
  and exists (select 1 from record_edit e where e.workspace_id = x.workspace_id and e.id = c.cause_id);
