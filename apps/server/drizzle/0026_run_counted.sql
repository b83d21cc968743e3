ALTER TABLE "run" ADD COLUMN "pipeline" text;--> statement-breakpoint
ALTER TABLE "run" ADD COLUMN "matches" text[] DEFAULT '{}' NOT NULL;--> statement-breakpoint
-- Of the runs until now, once and for all.
UPDATE "run" r SET
	"pipeline" = (SELECT w -> 'place' ->> 'pipeline' FROM json_array_elements(r."plan" -> 'writes') WITH ORDINALITY x (w, n) WHERE w -> 'place' ->> 'pipeline' IS NOT NULL ORDER BY n LIMIT 1),
	"matches" = coalesce((SELECT array_agg((w ->> 'record') || ' ' || coalesce(w -> 'match' ->> 'by', 'none') ORDER BY n) FROM json_array_elements(r."plan" -> 'writes') WITH ORDINALITY x (w, n) WHERE w ->> 'id' IS NOT NULL), '{}')
WHERE json_typeof(r."plan" -> 'writes') = 'array';
