ALTER TABLE "journey_step" ADD COLUMN "in_30" smallint;--> statement-breakpoint
ALTER TABLE "journey_step" ADD COLUMN "in_90" smallint;--> statement-breakpoint
ALTER TABLE "journey_step" ADD COLUMN "in_365" smallint;--> statement-breakpoint
ALTER TABLE "journey_step" ADD COLUMN "fade_7" real;--> statement-breakpoint
ALTER TABLE "journey_step" ADD COLUMN "fade_14" real;--> statement-breakpoint
ALTER TABLE "journey_step" ADD COLUMN "fade_30" real;--> statement-breakpoint
ALTER TABLE "journey_step" ADD COLUMN "fade_90" real;--> statement-breakpoint
update journey_step s set
  in_30 = x.in_30, in_90 = x.in_90, in_365 = x.in_365,
  fade_7 = x.fade_7, fade_14 = x.fade_14, fade_30 = x.fade_30, fade_90 = x.fade_90
from (
  select workspace_id, record_id, basis, back,
    count(*) filter (where at >= made_at - interval '30 days') over journey as in_30,
    count(*) filter (where at >= made_at - interval '90 days') over journey as in_90,
    count(*) filter (where at >= made_at - interval '365 days') over journey as in_365,
    sum(exp(greatest(-500, ago * (-ln(2::float8) / 86400 / 7)))) over journey as fade_7,
    sum(exp(greatest(-500, ago * (-ln(2::float8) / 86400 / 14)))) over journey as fade_14,
    sum(exp(greatest(-500, ago * (-ln(2::float8) / 86400 / 30)))) over journey as fade_30,
    sum(exp(greatest(-500, ago * (-ln(2::float8) / 86400 / 90)))) over journey as fade_90
  from journey_step window journey as (partition by workspace_id, record_id, basis)) x
where x.workspace_id = s.workspace_id and x.record_id = s.record_id and x.basis = s.basis and x.back = s.back;--> statement-breakpoint
ALTER TABLE "journey_step" ALTER COLUMN "in_30" SET NOT NULL;--> statement-breakpoint
ALTER TABLE "journey_step" ALTER COLUMN "in_90" SET NOT NULL;--> statement-breakpoint
ALTER TABLE "journey_step" ALTER COLUMN "in_365" SET NOT NULL;--> statement-breakpoint
ALTER TABLE "journey_step" ALTER COLUMN "fade_7" SET NOT NULL;--> statement-breakpoint
ALTER TABLE "journey_step" ALTER COLUMN "fade_14" SET NOT NULL;--> statement-breakpoint
ALTER TABLE "journey_step" ALTER COLUMN "fade_30" SET NOT NULL;--> statement-breakpoint
ALTER TABLE "journey_step" ALTER COLUMN "fade_90" SET NOT NULL;
