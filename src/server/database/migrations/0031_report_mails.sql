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
CREATE INDEX `report_mails_person` ON `report_mails` (`person_id`);