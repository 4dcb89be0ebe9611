CREATE TABLE `journal_checkpoints` (
	`size` integer PRIMARY KEY NOT NULL,
	`at` integer NOT NULL,
	`note` text NOT NULL,
	`mailed_at` integer
);
--> statement-breakpoint
CREATE INDEX `journal_checkpoints_mailed` ON `journal_checkpoints` (`mailed_at`);--> statement-breakpoint
CREATE TABLE `journal_tree` (
	`level` integer NOT NULL,
	`position` integer NOT NULL,
	`hash` text NOT NULL,
	PRIMARY KEY(`level`, `position`)
);
