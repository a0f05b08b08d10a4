-- Who made a release and, where something failed then, why all the same and what it was.
ALTER TABLE "release" ADD COLUMN "made_by" text;--> statement-breakpoint
ALTER TABLE "release" ADD COLUMN "reason" text;--> statement-breakpoint
ALTER TABLE "release" ADD COLUMN "failing" json;
