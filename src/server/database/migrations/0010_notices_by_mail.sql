ALTER TABLE `notices` ADD `sort` text DEFAULT 'watch' NOT NULL;--> statement-breakpoint
ALTER TABLE `notices` ADD `about` text;--> statement-breakpoint
ALTER TABLE `notices` ADD `mail_at` integer;--> statement-breakpoint
CREATE INDEX `notices_about` ON `notices` (`about`) WHERE about is not null;--> statement-breakpoint
CREATE INDEX `notices_to_mail` ON `notices` (`mail_at`) WHERE mail_at is not null;--> statement-breakpoint
ALTER TABLE `persons` ADD `mail_choices` text;