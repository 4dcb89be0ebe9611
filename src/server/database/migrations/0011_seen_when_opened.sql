DROP INDEX `entries_unrated`;--> statement-breakpoint
CREATE INDEX `entries_unrated` ON `entries` (`version_id`) WHERE unrated = 1;--> statement-breakpoint
ALTER TABLE `handovers` ADD `marks` text DEFAULT '[]' NOT NULL;