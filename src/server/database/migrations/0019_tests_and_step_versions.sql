CREATE TABLE `sign_in_tests` (
	`entry_id` text PRIMARY KEY NOT NULL,
	`at` integer NOT NULL,
	`by` text,
	`outcome` text NOT NULL,
	`detail` text NOT NULL,
	`version_id` text NOT NULL,
	`pages` text NOT NULL,
	`picture` blob,
	`key_version` integer,
	FOREIGN KEY (`entry_id`) REFERENCES `nodes`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`by`) REFERENCES `persons`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE TABLE `step_versions` (
	`id` text PRIMARY KEY NOT NULL,
	`entry_id` text NOT NULL,
	`steps` text NOT NULL,
	`how` text NOT NULL,
	`at` integer NOT NULL,
	`by` text NOT NULL,
	FOREIGN KEY (`entry_id`) REFERENCES `nodes`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`by`) REFERENCES `persons`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `step_versions_entry` ON `step_versions` (`entry_id`,`at`);--> statement-breakpoint
CREATE TABLE `__new_sign_ins` (
	`id` text PRIMARY KEY NOT NULL,
	`entry_id` text NOT NULL,
	`version_id` text NOT NULL,
	`person_id` text,
	`lanyard_id` text NOT NULL,
	`how` text NOT NULL,
	`queue_key` text NOT NULL,
	`process` text NOT NULL,
	`begun_at` integer NOT NULL,
	`ended_at` integer,
	`outcome` text,
	`detail` text,
	`jar` blob,
	`key_version` integer,
	`signed_out_at` integer,
	FOREIGN KEY (`entry_id`) REFERENCES `nodes`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`person_id`) REFERENCES `persons`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
INSERT INTO `__new_sign_ins`("id", "entry_id", "version_id", "person_id", "lanyard_id", "how", "queue_key", "process", "begun_at", "ended_at", "outcome", "detail", "jar", "key_version", "signed_out_at") SELECT "id", "entry_id", "version_id", "person_id", "lanyard_id", "how", "queue_key", "process", "begun_at", "ended_at", "outcome", "detail", "jar", "key_version", "signed_out_at" FROM `sign_ins`;--> statement-breakpoint
DROP TABLE `sign_ins`;--> statement-breakpoint
ALTER TABLE `__new_sign_ins` RENAME TO `sign_ins`;--> statement-breakpoint
CREATE INDEX `sign_ins_entry` ON `sign_ins` (`entry_id`,`begun_at`);--> statement-breakpoint
CREATE INDEX `sign_ins_person` ON `sign_ins` (`person_id`,`begun_at`);--> statement-breakpoint
CREATE INDEX `sign_ins_open` ON `sign_ins` (`ended_at`,`queue_key`);--> statement-breakpoint
CREATE INDEX `sign_ins_kept` ON `sign_ins` (`id`) WHERE jar is not null;--> statement-breakpoint
CREATE INDEX `sign_ins_kept_person` ON `sign_ins` (`person_id`) WHERE jar is not null;--> statement-breakpoint
CREATE INDEX `sign_ins_kept_entry` ON `sign_ins` (`entry_id`) WHERE jar is not null;--> statement-breakpoint
UPDATE `sign_ins` SET `how` = 'tested' WHERE `how` = 'proved';
