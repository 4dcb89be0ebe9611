ALTER TABLE `links` ADD `opened_at` integer;--> statement-breakpoint
ALTER TABLE `links` ADD `mail_id` text;