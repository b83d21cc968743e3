-- What is written once and read seldom is packed by the quicker of PostgreSQL's two ways.
ALTER TABLE "run" ALTER COLUMN "plan" SET COMPRESSION lz4;--> statement-breakpoint
ALTER TABLE "record_change" ALTER COLUMN "diff" SET COMPRESSION lz4;--> statement-breakpoint
ALTER TABLE "submission" ALTER COLUMN "body" SET COMPRESSION lz4;
