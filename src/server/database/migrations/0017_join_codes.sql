CREATE TABLE `join_codes` (
	`id` text PRIMARY KEY NOT NULL,
	`mail_hash` text NOT NULL,
	`code_hash` text NOT NULL,
	`wrong` integer NOT NULL,
	`expires_at` integer NOT NULL
);
--> statement-breakpoint
CREATE UNIQUE INDEX `join_codes_mail_hash_unique` ON `join_codes` (`mail_hash`);--> statement-breakpoint
CREATE INDEX `join_codes_expiry` ON `join_codes` (`expires_at`);