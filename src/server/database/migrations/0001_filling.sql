CREATE TABLE `attachment_pieces` (
	`attachment_id` text NOT NULL,
	`number` integer NOT NULL,
	`sealed` blob NOT NULL,
	PRIMARY KEY(`attachment_id`, `number`)
);
--> statement-breakpoint
CREATE TABLE `attachments` (
	`id` text PRIMARY KEY NOT NULL,
	`entry_id` text NOT NULL,
	`vault_id` text NOT NULL,
	`key_version` integer NOT NULL,
	`name` text NOT NULL,
	`type` text NOT NULL,
	`size` integer NOT NULL,
	`pieces` integer NOT NULL,
	`created_at` integer NOT NULL,
	`created_by` text NOT NULL,
	`complete_at` integer
);
--> statement-breakpoint
CREATE INDEX `attachments_entry` ON `attachments` (`entry_id`);--> statement-breakpoint
CREATE TABLE `conditions` (
	`version_id` text NOT NULL,
	`field` text NOT NULL,
	`guesses` real NOT NULL,
	PRIMARY KEY(`version_id`, `field`)
);
--> statement-breakpoint
CREATE TABLE `import_updates` (
	`import_id` text NOT NULL,
	`entry_id` text NOT NULL,
	`before_version_id` text NOT NULL,
	`version_id` text NOT NULL,
	`pending` text,
	`sealed` blob,
	PRIMARY KEY(`import_id`, `entry_id`)
);
--> statement-breakpoint
CREATE TABLE `kinds` (
	`id` text PRIMARY KEY NOT NULL,
	`name` text NOT NULL,
	`purpose` text NOT NULL,
	`fields` text NOT NULL,
	`title` text,
	`picture_id` text,
	`created_at` integer NOT NULL,
	`created_by` text NOT NULL,
	`changed_at` integer NOT NULL,
	`closed_at` integer
);
--> statement-breakpoint
CREATE TABLE `ledger_views` (
	`person_id` text NOT NULL,
	`vault_id` text NOT NULL,
	`view` text NOT NULL,
	PRIMARY KEY(`person_id`, `vault_id`)
);
--> statement-breakpoint
CREATE TABLE `mappings` (
	`id` text PRIMARY KEY NOT NULL,
	`person_id` text NOT NULL,
	`name` text NOT NULL,
	`mapping` text NOT NULL,
	`changed_at` integer NOT NULL
);
--> statement-breakpoint
CREATE TABLE `pictures` (
	`id` text PRIMARY KEY NOT NULL,
	`png` blob NOT NULL,
	`created_at` integer NOT NULL,
	`created_by` text NOT NULL
);
--> statement-breakpoint
CREATE TABLE `sites` (
	`id` text PRIMARY KEY NOT NULL,
	`name` text NOT NULL,
	`sign_in_page` text NOT NULL,
	`kind` text NOT NULL,
	`hint` text DEFAULT '' NOT NULL,
	`password_rules` text DEFAULT '' NOT NULL,
	`created_at` integer NOT NULL,
	`created_by` text NOT NULL
);
--> statement-breakpoint
CREATE TABLE `ticks` (
	`entry_id` text NOT NULL,
	`fingerprint` text NOT NULL,
	`person_id` text NOT NULL,
	`at` integer NOT NULL,
	PRIMARY KEY(`entry_id`, `fingerprint`)
);
--> statement-breakpoint
ALTER TABLE `entries` ADD `aside_at` integer;--> statement-breakpoint
ALTER TABLE `entries` ADD `aside_by` text;--> statement-breakpoint
ALTER TABLE `entries` ADD `aside_with` text;--> statement-breakpoint
ALTER TABLE `entries` ADD `ask_again` integer DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE `entries` ADD `filling` text DEFAULT 'send' NOT NULL;--> statement-breakpoint
ALTER TABLE `entries` ADD `picture_id` text;--> statement-breakpoint
ALTER TABLE `vaults` ADD `aside_at` integer;--> statement-breakpoint
ALTER TABLE `vaults` ADD `aside_by` text;