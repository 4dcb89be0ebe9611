CREATE TABLE `run_items` (
	`run_id` text NOT NULL,
	`number` integer NOT NULL,
	`entry_id` text NOT NULL,
	`process` text,
	`begun_at` integer,
	`ended_at` integer,
	`good` integer DEFAULT false NOT NULL,
	`says` text DEFAULT '' NOT NULL,
	PRIMARY KEY(`run_id`, `number`),
	FOREIGN KEY (`run_id`) REFERENCES `runs`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `run_items_ended` ON `run_items` (`ended_at`,`begun_at`);--> statement-breakpoint
CREATE INDEX `run_items_entry` ON `run_items` (`entry_id`,`ended_at`);--> statement-breakpoint
CREATE TABLE `runs` (
	`id` text PRIMARY KEY NOT NULL,
	`what` text NOT NULL,
	`person_id` text,
	`about_id` text,
	`proved_at` integer NOT NULL,
	`address` text NOT NULL,
	`browser` text NOT NULL,
	`language` text NOT NULL,
	`begun_at` integer NOT NULL,
	`stopped_at` integer,
	`ended_at` integer,
	`dismissed_at` integer
);
--> statement-breakpoint
CREATE INDEX `runs_open` ON `runs` (`begun_at`) WHERE ended_at is null;--> statement-breakpoint
CREATE INDEX `runs_person` ON `runs` (`person_id`) WHERE dismissed_at is null;--> statement-breakpoint
CREATE INDEX `runs_ended` ON `runs` (`ended_at`);--> statement-breakpoint
ALTER TABLE `entries` ADD `changed_regularly` integer DEFAULT false NOT NULL;--> statement-breakpoint
CREATE INDEX `entries_changed_regularly` ON `entries` (`node_id`) WHERE changed_regularly = 1;