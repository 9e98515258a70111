CREATE TABLE `versions` (
	`id` text PRIMARY KEY NOT NULL,
	`drawing_id` text NOT NULL,
	`name` text NOT NULL,
	`revision` integer NOT NULL,
	`at` integer NOT NULL,
	FOREIGN KEY (`drawing_id`) REFERENCES `drawings`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE INDEX `versions_drawing` ON `versions` (`drawing_id`,`at`);