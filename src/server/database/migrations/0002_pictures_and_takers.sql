CREATE TABLE `taking_parts` (
	`taking_id` text NOT NULL,
	`number` integer NOT NULL,
	`rows` text NOT NULL,
	PRIMARY KEY(`taking_id`, `number`)
);
--> statement-breakpoint
CREATE TABLE `takings` (
	`id` text PRIMARY KEY NOT NULL,
	`vault_id` text NOT NULL,
	`person_id` text NOT NULL,
	`session_id` text,
	`at` integer NOT NULL
);
--> statement-breakpoint
ALTER TABLE `vaults` ADD `picture_id` text;--> statement-breakpoint
ALTER TABLE `vaults` ADD `takers` text DEFAULT '[]' NOT NULL;