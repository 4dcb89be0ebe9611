ALTER TABLE `groups` ADD `until_at` integer;--> statement-breakpoint
ALTER TABLE `standings` ADD `until_at` integer;