CREATE TABLE "drawings" (
	"id" text PRIMARY KEY NOT NULL,
	"title" text NOT NULL,
	"revision" integer NOT NULL
);
--> statement-breakpoint
CREATE TABLE "journal" (
	"drawing_id" text NOT NULL,
	"revision" integer NOT NULL,
	"change_id" text NOT NULL,
	"body" text NOT NULL,
	"at" bigint NOT NULL,
	"schema" integer NOT NULL,
	"digest" text NOT NULL,
	CONSTRAINT "journal_drawing_id_revision_pk" PRIMARY KEY("drawing_id","revision")
);
--> statement-breakpoint
CREATE TABLE "snapshots" (
	"drawing_id" text NOT NULL,
	"revision" integer NOT NULL,
	"body" "bytea" NOT NULL,
	"digest" text,
	CONSTRAINT "snapshots_drawing_id_revision_pk" PRIMARY KEY("drawing_id","revision")
);
--> statement-breakpoint
ALTER TABLE "journal" ADD CONSTRAINT "journal_drawing_id_drawings_id_fk" FOREIGN KEY ("drawing_id") REFERENCES "public"."drawings"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "snapshots" ADD CONSTRAINT "snapshots_drawing_id_drawings_id_fk" FOREIGN KEY ("drawing_id") REFERENCES "public"."drawings"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE UNIQUE INDEX "journal_change" ON "journal" USING btree ("drawing_id","change_id");