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
CREATE TABLE `handovers` (
	`id` text PRIMARY KEY NOT NULL,
	`token_hash` text NOT NULL,
	`entry_id` text NOT NULL,
	`vault_id` text NOT NULL,
	`maker_id` text NOT NULL,
	`labels` text NOT NULL,
	`sealed` blob,
	`word_hash` text,
	`made_at` integer NOT NULL,
	`expires_at` integer NOT NULL,
	`openings` integer NOT NULL,
	`opened_at` text DEFAULT '[]' NOT NULL,
	`opener` text,
	`wrong_words` integer DEFAULT 0 NOT NULL,
	`withdrawn_at` integer
);
--> statement-breakpoint
CREATE UNIQUE INDEX `handovers_token_hash_unique` ON `handovers` (`token_hash`);--> statement-breakpoint
CREATE INDEX `handovers_entry` ON `handovers` (`entry_id`);--> statement-breakpoint
CREATE TABLE `slips` (
	`id` text PRIMARY KEY NOT NULL,
	`person_id` text NOT NULL,
	`state` text NOT NULL,
	`changes` text NOT NULL,
	`revision` integer DEFAULT 0 NOT NULL,
	`why` text DEFAULT '' NOT NULL,
	`created_at` integer NOT NULL,
	`changed_at` integer NOT NULL,
	`applied_at` integer,
	`back` text,
	`ground` text DEFAULT '' NOT NULL,
	`waits` text DEFAULT '[]' NOT NULL
);
--> statement-breakpoint
CREATE UNIQUE INDEX `slips_draft` ON `slips` (`person_id`) WHERE state = 'draft';--> statement-breakpoint
CREATE INDEX `slips_applied` ON `slips` (`person_id`,`applied_at`);--> statement-breakpoint
ALTER TABLE `entries` ADD `listed` integer DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE `grants` ADD `weekly` text;--> statement-breakpoint
CREATE INDEX `grants_weekly` ON `grants` (`valid_until`) WHERE weekly is not null;