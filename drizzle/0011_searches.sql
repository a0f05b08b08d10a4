-- Searches for faults of whole workspaces, in chunks that workers take from a queue: what each chunk found, and what was
-- found in each form last, of which state of the workspace.
CREATE TABLE "search_run" (
  "id" serial PRIMARY KEY,
  "by" text,
  "at" timestamp with time zone DEFAULT now() NOT NULL,
  "seeds" integer NOT NULL,
  "stopped" boolean DEFAULT false NOT NULL
);--> statement-breakpoint
CREATE TABLE "search_ground" (
  "search" integer NOT NULL REFERENCES "search_run" ("id") ON DELETE CASCADE,
  "form" text NOT NULL,
  "of" text NOT NULL,
  "request" json,
  "says" text,
  PRIMARY KEY ("search", "form")
);--> statement-breakpoint
CREATE TABLE "search_chunk" (
  "search" integer NOT NULL REFERENCES "search_run" ("id") ON DELETE CASCADE,
  "form" text NOT NULL,
  "seed" integer NOT NULL,
  "sessions" integer NOT NULL,
  "findings" json NOT NULL,
  "says" text,
  "at" timestamp with time zone DEFAULT now() NOT NULL,
  PRIMARY KEY ("search", "form", "seed")
);--> statement-breakpoint
CREATE TABLE "form_found" (
  "form" text PRIMARY KEY,
  "of" text NOT NULL,
  "sessions" integer NOT NULL,
  "wrong" integer NOT NULL,
  "findings" json NOT NULL,
  "at" timestamp with time zone DEFAULT now() NOT NULL
);
