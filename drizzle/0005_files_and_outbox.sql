CREATE TABLE `hand_ins` (
	`id` text PRIMARY KEY NOT NULL,
	`drawing_id` text NOT NULL,
	`revision` integer NOT NULL,
	`place` text NOT NULL,
	`state` text NOT NULL,
	`name` text NOT NULL,
	`mime` text NOT NULL,
	`bytes` integer NOT NULL,
	`sha256` text NOT NULL,
	`sent` integer NOT NULL,
	`tries` integer NOT NULL,
	`receipt` text,
	`received_at` integer,
	`reason` text,
	`at` integer NOT NULL,
	FOREIGN KEY (`drawing_id`) REFERENCES `drawings`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE INDEX `hand_ins_drawing` ON `hand_ins` (`drawing_id`,`at`);--> statement-breakpoint
CREATE TABLE `jobs` (
	`id` text PRIMARY KEY NOT NULL,
	`drawing_id` text NOT NULL,
	`revision` integer NOT NULL,
	`state` text NOT NULL,
	`made` integer NOT NULL,
	`total` integer NOT NULL,
	`name` text NOT NULL,
	`mime` text NOT NULL,
	`bytes` integer,
	`reason` text,
	`at` integer NOT NULL,
	`ended_at` integer,
	FOREIGN KEY (`drawing_id`) REFERENCES `drawings`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE INDEX `jobs_drawing` ON `jobs` (`drawing_id`,`at`);--> statement-breakpoint
ALTER TABLE `versions` ADD `note` text DEFAULT '' NOT NULL;