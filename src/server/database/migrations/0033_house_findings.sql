ALTER TABLE `organisation` ADD `checkpoint_noted_at` integer;--> statement-breakpoint
CREATE INDEX `lanyards_unused` ON `lanyards` (`last_used_at`) WHERE ended_at is null;