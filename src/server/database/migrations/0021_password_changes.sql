CREATE TABLE `password_changes` (
	`id` text PRIMARY KEY NOT NULL,
	`entry_id` text NOT NULL,
	`version_id` text NOT NULL,
	`person_id` text NOT NULL,
	`process` text NOT NULL,
	`begun_at` integer NOT NULL,
	`sent_at` integer,
	`outcome` text,
	`detail` text DEFAULT '' NOT NULL,
	`ended_at` integer,
	`at` text DEFAULT '' NOT NULL,
	`sealed` blob,
	`key_version` integer,
	FOREIGN KEY (`entry_id`) REFERENCES `entries`(`node_id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `password_changes_entry` ON `password_changes` (`entry_id`,`begun_at`);--> statement-breakpoint
CREATE INDEX `password_changes_open` ON `password_changes` (`begun_at`) WHERE ended_at is null;--> statement-breakpoint
CREATE INDEX `password_changes_sealed` ON `password_changes` (`entry_id`) WHERE sealed is not null;