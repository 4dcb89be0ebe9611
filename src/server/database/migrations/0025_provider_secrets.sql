ALTER TABLE `providers` ADD `secret_at` integer;--> statement-breakpoint
ALTER TABLE `providers` ADD `scim_at` integer;--> statement-breakpoint
UPDATE `providers` SET `secret_at` = `created_at` WHERE `secret` IS NOT NULL;
