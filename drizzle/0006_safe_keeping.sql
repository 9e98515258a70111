CREATE TABLE `counts` (
	`name` text PRIMARY KEY NOT NULL,
	`count` integer NOT NULL
);
--> statement-breakpoint
ALTER TABLE `journal` ADD `digest` text;