CREATE TABLE `device_sign_ins` (
	`id` text PRIMARY KEY NOT NULL,
	`token_hash` text NOT NULL,
	`number_hash` text NOT NULL,
	`browser` text NOT NULL,
	`address` text NOT NULL,
	`created_at` integer NOT NULL,
	`expires_at` integer NOT NULL,
	`approved_by` text,
	`declined_at` integer,
	`used_at` integer,
	FOREIGN KEY (`approved_by`) REFERENCES `persons`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `device_sign_ins_token_hash_unique` ON `device_sign_ins` (`token_hash`);--> statement-breakpoint
CREATE INDEX `device_sign_ins_number` ON `device_sign_ins` (`number_hash`);--> statement-breakpoint
CREATE INDEX `device_sign_ins_expiry` ON `device_sign_ins` (`expires_at`);--> statement-breakpoint
ALTER TABLE `organisation` ADD `mailed_at` integer;--> statement-breakpoint
ALTER TABLE `organisation` ADD `backed_up_at` integer;--> statement-breakpoint
ALTER TABLE `persons` ADD `steps_dismissed_at` integer;--> statement-breakpoint
ALTER TABLE `persons` ADD `erased_at` integer;--> statement-breakpoint
ALTER TABLE `sessions` ADD `limited` integer DEFAULT false NOT NULL;--> statement-breakpoint
CREATE INDEX `known_browsers_person` ON `known_browsers` (`person_id`);