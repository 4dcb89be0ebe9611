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
	`back` text
);
--> statement-breakpoint
CREATE UNIQUE INDEX `slips_draft` ON `slips` (`person_id`) WHERE state = 'draft';--> statement-breakpoint
CREATE INDEX `slips_applied` ON `slips` (`person_id`,`applied_at`);--> statement-breakpoint
ALTER TABLE `grants` ADD `weekly` text;--> statement-breakpoint
CREATE INDEX `grants_weekly` ON `grants` (`valid_until`) WHERE weekly is not null;