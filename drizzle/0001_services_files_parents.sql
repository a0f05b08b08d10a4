CREATE TABLE "file_content" (
	"filling" uuid NOT NULL,
	"name" text NOT NULL,
	"size" integer NOT NULL,
	"type" text NOT NULL,
	"content" "bytea" NOT NULL,
	"form" text NOT NULL,
	"record" text,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "file_content_filling_name_pk" PRIMARY KEY("filling","name")
);
--> statement-breakpoint
CREATE TABLE "service" (
	"name" text PRIMARY KEY NOT NULL,
	"content" jsonb NOT NULL,
	"revision" integer DEFAULT 1 NOT NULL
);
--> statement-breakpoint
ALTER TABLE "filling" ADD COLUMN "parent" uuid;--> statement-breakpoint
ALTER TABLE "filling" ADD COLUMN "to_parent" jsonb;--> statement-breakpoint
ALTER TABLE "form" ADD COLUMN "revision" integer DEFAULT 1 NOT NULL;--> statement-breakpoint
ALTER TABLE "reference_table" ADD COLUMN "revision" integer DEFAULT 1 NOT NULL;--> statement-breakpoint
ALTER TABLE "workspace" ADD COLUMN "revision" integer DEFAULT 1 NOT NULL;--> statement-breakpoint
ALTER TABLE "file_content" ADD CONSTRAINT "file_content_filling_filling_id_fk" FOREIGN KEY ("filling") REFERENCES "filling"("id") ON DELETE no action ON UPDATE no action;