CREATE TABLE `change_list_items` (
	`list_id` text NOT NULL,
	`entry_id` text NOT NULL,
	`done_at` integer,
	`left_version_id` text,
	`left_why` text DEFAULT '' NOT NULL,
	`left_by` text,
	`left_at` integer,
	PRIMARY KEY(`list_id`, `entry_id`),
	FOREIGN KEY (`list_id`) REFERENCES `change_lists`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `change_list_items_entry` ON `change_list_items` (`entry_id`);--> statement-breakpoint
CREATE TABLE `change_lists` (
	`id` text PRIMARY KEY NOT NULL,
	`person_id` text NOT NULL,
	`sort` text NOT NULL,
	`why` text NOT NULL,
	`due_at` integer NOT NULL,
	`opened_at` integer NOT NULL,
	`opened_by` text,
	`reminded_at` integer,
	`ended_at` integer
);
--> statement-breakpoint
CREATE INDEX `change_lists_person` ON `change_lists` (`person_id`,`opened_at`);--> statement-breakpoint
CREATE INDEX `change_lists_ended` ON `change_lists` (`ended_at`);--> statement-breakpoint
CREATE INDEX `change_lists_open` ON `change_lists` (`due_at`) WHERE ended_at is null;