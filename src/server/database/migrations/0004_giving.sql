CREATE TABLE `acceptances` (
	`person_id` text NOT NULL,
	`vault_id` text NOT NULL,
	`note` text NOT NULL,
	`at` integer NOT NULL,
	PRIMARY KEY(`person_id`, `vault_id`)
);
--> statement-breakpoint
CREATE TABLE `letterboxes` (
	`id` text PRIMARY KEY NOT NULL,
	`token_hash` text NOT NULL,
	`node_id` text NOT NULL,
	`maker_id` text NOT NULL,
	`name` text NOT NULL,
	`labels` text NOT NULL,
	`made_at` integer NOT NULL,
	`expires_at` integer NOT NULL,
	`dropped_at` integer,
	`entry_id` text,
	`closed_at` integer
);
--> statement-breakpoint
CREATE UNIQUE INDEX `letterboxes_token_hash_unique` ON `letterboxes` (`token_hash`);--> statement-breakpoint
CREATE INDEX `letterboxes_node` ON `letterboxes` (`node_id`);--> statement-breakpoint
CREATE TABLE `rounds` (
	`id` text PRIMARY KEY NOT NULL,
	`vault_id` text NOT NULL,
	`started_at` integer NOT NULL,
	`started_by` text,
	`asked` text NOT NULL,
	`asked_at` integer NOT NULL,
	`reminded_at` integer,
	`passed` text DEFAULT '[]' NOT NULL,
	`said` text DEFAULT '[]' NOT NULL,
	`finished_at` integer,
	`finished_by` text,
	`kept` text
);
--> statement-breakpoint
CREATE UNIQUE INDEX `rounds_open` ON `rounds` (`vault_id`) WHERE finished_at is null;--> statement-breakpoint
CREATE TABLE `yeses` (
	`id` text PRIMARY KEY NOT NULL,
	`entry_id` text NOT NULL,
	`person_id` text NOT NULL,
	`why` text NOT NULL,
	`browser` text NOT NULL,
	`address` text NOT NULL,
	`asked_at` integer NOT NULL,
	`needed` integer NOT NULL,
	`minutes` integer NOT NULL,
	`said` text DEFAULT '[]' NOT NULL,
	`until_at` integer,
	`emergency` integer DEFAULT false NOT NULL,
	`closed_at` integer,
	`closed_by` text,
	`word` text DEFAULT '' NOT NULL
);
--> statement-breakpoint
CREATE INDEX `yeses_person` ON `yeses` (`person_id`,`entry_id`);--> statement-breakpoint
CREATE INDEX `yeses_open` ON `yeses` (`closed_at`,`until_at`);--> statement-breakpoint
ALTER TABLE `asks` ADD `site` text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE `entries` ADD `asks_first` integer DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE `entries` ADD `yes_minutes` integer DEFAULT 30 NOT NULL;--> statement-breakpoint
ALTER TABLE `groups` ADD `until_at` integer;--> statement-breakpoint
ALTER TABLE `organisation` ADD `rules` text DEFAULT '{}' NOT NULL;--> statement-breakpoint
ALTER TABLE `slips` ADD `shown_to` text DEFAULT '[]' NOT NULL;--> statement-breakpoint
ALTER TABLE `standings` ADD `until_at` integer;--> statement-breakpoint
ALTER TABLE `vaults` ADD `house_note` text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE `vaults` ADD `rounds_months` integer;--> statement-breakpoint
ALTER TABLE `vaults` ADD `rounds_since` integer;