CREATE TABLE `mails` (
	`id` text PRIMARY KEY NOT NULL,
	`to` text NOT NULL,
	`subject` text NOT NULL,
	`sealed` blob,
	`made_at` integer NOT NULL,
	`until` integer NOT NULL,
	`next_at` integer NOT NULL,
	`sent_at` integer,
	`failed_at` integer,
	`wrong` text,
	`maker_id` text NOT NULL,
	`node_id` text
);
--> statement-breakpoint
CREATE INDEX `mails_due` ON `mails` (`next_at`);--> statement-breakpoint
ALTER TABLE `handovers` ADD `mail_to` text;--> statement-breakpoint
ALTER TABLE `handovers` ADD `codes_at` text DEFAULT '[]' NOT NULL;--> statement-breakpoint
ALTER TABLE `handovers` ADD `code_mark` text;--> statement-breakpoint
ALTER TABLE `handovers` ADD `code_mail_id` text;