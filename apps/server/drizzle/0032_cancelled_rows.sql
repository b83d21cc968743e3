ALTER TABLE "submission" DROP CONSTRAINT "submission_state";--> statement-breakpoint
ALTER TABLE "submission" ADD CONSTRAINT "submission_state" CHECK ("submission"."state" in ('waiting', 'routed', 'set-aside', 'cancelled'));--> statement-breakpoint
-- A row of a file says so in a place of its own; whoever writes utm_medium=file into an address comes by a campaign.
update submission s set visit = (s.visit - 'utm_source' - 'utm_medium') || jsonb_build_object('sheet', s.visit -> 'utm_source')
from intake i where i.workspace_id = s.workspace_id and i.id = s.intake_id and i.kind = 'sheet' and s.visit ->> 'utm_medium' = 'file' and s.visit ? 'utm_source';--> statement-breakpoint
update touch t set channel = 'campaign' from run r
join submission s on s.workspace_id = r.workspace_id and s.id = r.submission_id
join intake i on i.workspace_id = s.workspace_id and i.id = s.intake_id
where t.channel = 'file' and r.workspace_id = t.workspace_id and r.id = t.run_id and i.kind <> 'sheet';
