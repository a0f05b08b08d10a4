CREATE TABLE "service" (
	"name" text PRIMARY KEY NOT NULL,
	"content" jsonb NOT NULL
);
