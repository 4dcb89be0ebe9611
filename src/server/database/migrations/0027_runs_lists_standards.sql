CREATE TABLE `change_list_items` (
	`list_id` text NOT NULL,
	`entry_id` text NOT NULL,
	`left_version_id` text,
	`left_why` text DEFAULT '' NOT NULL,
	`left_by` text,
	`left_at` integer,
	PRIMARY KEY(`list_id`, `entry_id`),
	FOREIGN KEY (`list_id`) REFERENCES `change_lists`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
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
CREATE INDEX `change_lists_open` ON `change_lists` (`due_at`) WHERE ended_at is null;--> statement-breakpoint
CREATE TABLE `report_mails` (
	`id` text PRIMARY KEY NOT NULL,
	`person_id` text NOT NULL,
	`question` text NOT NULL,
	`node_id` text,
	`about_id` text,
	`every` text NOT NULL,
	`next_at` integer NOT NULL,
	`count` integer,
	FOREIGN KEY (`person_id`) REFERENCES `persons`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `report_mails_next` ON `report_mails` (`next_at`);--> statement-breakpoint
CREATE INDEX `report_mails_person` ON `report_mails` (`person_id`);--> statement-breakpoint
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
ALTER TABLE `entries` ADD `change_page` text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE `entries` ADD `changed_regularly` integer DEFAULT false NOT NULL;--> statement-breakpoint
CREATE INDEX `entries_changed_regularly` ON `entries` (`node_id`) WHERE changed_regularly = 1;--> statement-breakpoint
ALTER TABLE `kinds` ADD `old_after` integer;--> statement-breakpoint
ALTER TABLE `organisation` ADD `checkpoint_noted_at` integer;--> statement-breakpoint
ALTER TABLE `persons` ADD `address_leaks` integer DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE `persons` ADD `address_leaked_at` integer;--> statement-breakpoint
ALTER TABLE `persons` ADD `address_looked_up_at` integer DEFAULT 0 NOT NULL;--> statement-breakpoint
CREATE INDEX `persons_address_looked_up` ON `persons` (`address_looked_up_at`);--> statement-breakpoint
CREATE INDEX `persons_address_leaked` ON `persons` (`address_leaked_at`) WHERE address_leaked_at is not null;--> statement-breakpoint
ALTER TABLE `sites` ADD `offers_codes` integer DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE `vaults` ADD `most_people` integer;--> statement-breakpoint
CREATE INDEX `lanyards_unused` ON `lanyards` (`last_used_at`) WHERE ended_at is null;