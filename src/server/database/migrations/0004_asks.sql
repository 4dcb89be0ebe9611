CREATE TABLE `asks` (
	`id` text PRIMARY KEY NOT NULL,
	`person_id` text NOT NULL,
	`node_id` text NOT NULL,
	`level` text NOT NULL,
	`until_at` integer,
	`why` text NOT NULL,
	`state` text NOT NULL,
	`asked_at` integer NOT NULL,
	`passed_to` text,
	`reminded_at` integer,
	`raised_at` integer,
	`answered_at` integer,
	`answered_by` text,
	`given` text,
	`word` text DEFAULT '' NOT NULL
);
--> statement-breakpoint
CREATE INDEX `asks_state` ON `asks` (`state`,`node_id`);--> statement-breakpoint
CREATE INDEX `asks_person` ON `asks` (`person_id`,`state`);--> statement-breakpoint
ALTER TABLE `entries` ADD `listed` integer DEFAULT false NOT NULL;