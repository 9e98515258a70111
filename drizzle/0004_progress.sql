ALTER TABLE `drawings` ADD `sheets` integer;--> statement-breakpoint
ALTER TABLE `drawings` ADD `sheets_traced` integer;--> statement-breakpoint
ALTER TABLE `drawings` ADD `lines` integer;