ALTER TABLE `provider_accounts` ADD `scim_user` text;--> statement-breakpoint
ALTER TABLE `provider_accounts` ADD `suspended_at` integer;