ALTER TABLE `persons` ADD `address_leaks` integer DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE `persons` ADD `address_leaked_at` integer;--> statement-breakpoint
ALTER TABLE `persons` ADD `address_looked_up_at` integer DEFAULT 0 NOT NULL;--> statement-breakpoint
CREATE INDEX `persons_address_looked_up` ON `persons` (`address_looked_up_at`);--> statement-breakpoint
CREATE INDEX `persons_address_leaked` ON `persons` (`address_leaked_at`) WHERE address_leaked_at is not null;