CREATE TABLE `drawings` (
	`id` text PRIMARY KEY NOT NULL,
	`title` text NOT NULL,
	`stage` text NOT NULL,
	`revision` integer NOT NULL,
	`created_at` integer NOT NULL,
	`changed_at` integer NOT NULL,
	`binned_at` integer
);
--> statement-breakpoint
CREATE TABLE `journal` (
	`drawing_id` text NOT NULL,
	`revision` integer NOT NULL,
	`change_id` text NOT NULL,
	`label` text NOT NULL,
	`body` text NOT NULL,
	`at` integer NOT NULL,
	PRIMARY KEY(`drawing_id`, `revision`),
	FOREIGN KEY (`drawing_id`) REFERENCES `drawings`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE UNIQUE INDEX `journal_change` ON `journal` (`drawing_id`,`change_id`);--> statement-breakpoint
CREATE TABLE `pictures` (
	`hash` text PRIMARY KEY NOT NULL,
	`mime` text NOT NULL,
	`bytes` integer NOT NULL,
	`width` integer NOT NULL,
	`height` integer NOT NULL,
	`dpi` integer,
	`at` integer NOT NULL
);
--> statement-breakpoint
CREATE INDEX `pictures_at` ON `pictures` (`at`);--> statement-breakpoint
CREATE TABLE `snapshots` (
	`drawing_id` text NOT NULL,
	`revision` integer NOT NULL,
	`body` text NOT NULL,
	PRIMARY KEY(`drawing_id`, `revision`),
	FOREIGN KEY (`drawing_id`) REFERENCES `drawings`(`id`) ON UPDATE no action ON DELETE cascade
);
