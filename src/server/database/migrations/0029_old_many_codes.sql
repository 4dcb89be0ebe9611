ALTER TABLE `kinds` ADD `old_after` integer;--> statement-breakpoint
ALTER TABLE `sites` ADD `offers_codes` integer DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE `vaults` ADD `many` integer;