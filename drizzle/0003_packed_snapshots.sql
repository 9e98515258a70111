PRAGMA foreign_keys=OFF;--> statement-breakpoint
CREATE TABLE `__new_snapshots` (
	`drawing_id` text NOT NULL,
	`revision` integer NOT NULL,
	`body` blob NOT NULL,
	PRIMARY KEY(`drawing_id`, `revision`),
	FOREIGN KEY (`drawing_id`) REFERENCES `drawings`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
INSERT INTO `__new_snapshots`("drawing_id", "revision", "body") SELECT "drawing_id", "revision", "body" FROM `snapshots`;--> statement-breakpoint
DROP TABLE `snapshots`;--> statement-breakpoint
ALTER TABLE `__new_snapshots` RENAME TO `snapshots`;--> statement-breakpoint
PRAGMA foreign_keys=ON;