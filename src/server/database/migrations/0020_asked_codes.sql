CREATE TABLE `asked_codes` (
	`id` text PRIMARY KEY NOT NULL,
	`sign_in_id` text NOT NULL,
	`entry_id` text NOT NULL,
	`vault_id` text NOT NULL,
	`reaches` text NOT NULL,
	`asked_at` integer NOT NULL,
	`until` integer NOT NULL,
	`declined` text DEFAULT '[]' NOT NULL,
	`answered_at` integer,
	`answered_by` text,
	`sealed` blob,
	`key_version` integer,
	`closed_at` integer,
	FOREIGN KEY (`sign_in_id`) REFERENCES `sign_ins`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `asked_codes_open` ON `asked_codes` (`until`) WHERE closed_at is null;--> statement-breakpoint
CREATE INDEX `asked_codes_asked` ON `asked_codes` (`asked_at`);--> statement-breakpoint
CREATE INDEX `asked_codes_sign_in` ON `asked_codes` (`sign_in_id`);--> statement-breakpoint
ALTER TABLE `entries` ADD `codes_reach` text DEFAULT '' NOT NULL;