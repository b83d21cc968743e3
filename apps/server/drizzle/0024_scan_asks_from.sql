ALTER TABLE "look_alike_scan" ADD COLUMN "ask" double precision;--> statement-breakpoint
-- Earlier scans kept what their workspace's thresholds say; where nobody set any, the usual ones.
UPDATE "look_alike_scan" s SET "ask" = coalesce((SELECT ("thresholds" ->> 'ask')::float8 FROM "recognition" r WHERE r."workspace_id" = s."workspace_id"), 0.2);--> statement-breakpoint
ALTER TABLE "look_alike_scan" ALTER COLUMN "ask" SET NOT NULL;
