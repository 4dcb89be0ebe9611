CREATE TABLE `journal_forwarding` (
	`target` text PRIMARY KEY NOT NULL,
	`seq` integer NOT NULL,
	`failed_since` integer
);
