CREATE TABLE `gone` (
	`id` text PRIMARY KEY NOT NULL,
	`at` integer NOT NULL
);
