ALTER TABLE "company" ADD COLUMN "typed" text[] DEFAULT '{}' NOT NULL;--> statement-breakpoint
ALTER TABLE "contact" ADD COLUMN "typed" text[] DEFAULT '{}' NOT NULL;--> statement-breakpoint
ALTER TABLE "deal" ADD COLUMN "typed" text[] DEFAULT '{}' NOT NULL;--> statement-breakpoint
ALTER TABLE "lead" ADD COLUMN "typed" text[] DEFAULT '{}' NOT NULL;