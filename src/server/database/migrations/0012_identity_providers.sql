CREATE TABLE `provider_accounts` (
	`id` text PRIMARY KEY NOT NULL,
	`provider_id` text NOT NULL,
	`subject` text,
	`person_id` text,
	`claims_person` text,
	`mail` text DEFAULT '' NOT NULL,
	`name` text DEFAULT '' NOT NULL,
	`groups` text,
	`user_name` text,
	`external_id` text,
	`user_name_lower` text,
	`active` integer DEFAULT true NOT NULL,
	`linked_at` integer,
	`last_at` integer,
	`created_at` integer NOT NULL,
	`changed_at` integer NOT NULL,
	`scim` integer DEFAULT false NOT NULL,
	FOREIGN KEY (`provider_id`) REFERENCES `providers`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`person_id`) REFERENCES `persons`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`claims_person`) REFERENCES `persons`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `provider_accounts_subject` ON `provider_accounts` (`provider_id`,`subject`);--> statement-breakpoint
CREATE UNIQUE INDEX `provider_accounts_user_name` ON `provider_accounts` (`provider_id`,`user_name_lower`);--> statement-breakpoint
CREATE INDEX `provider_accounts_person` ON `provider_accounts` (`person_id`);--> statement-breakpoint
CREATE INDEX `provider_accounts_mail` ON `provider_accounts` (`mail`);--> statement-breakpoint
CREATE INDEX `provider_accounts_claims` ON `provider_accounts` (`claims_person`) WHERE claims_person is not null;--> statement-breakpoint
CREATE INDEX `provider_accounts_external` ON `provider_accounts` (`provider_id`,`external_id`);--> statement-breakpoint
CREATE INDEX `provider_accounts_scim` ON `provider_accounts` (`provider_id`,`scim`,`id`);--> statement-breakpoint
CREATE TABLE `provider_flows` (
	`state_hash` text PRIMARY KEY NOT NULL,
	`provider_id` text NOT NULL,
	`purpose` text NOT NULL,
	`browser_hash` text NOT NULL,
	`nonce` text NOT NULL,
	`verifier` blob NOT NULL,
	`next` text NOT NULL,
	`person_id` text,
	`link_hash` text,
	`created_at` integer NOT NULL,
	`expires_at` integer NOT NULL,
	`used_at` integer
);
--> statement-breakpoint
CREATE INDEX `provider_flows_expire` ON `provider_flows` (`expires_at`);--> statement-breakpoint
CREATE TABLE `provider_groups` (
	`id` text PRIMARY KEY NOT NULL,
	`provider_id` text NOT NULL,
	`name` text NOT NULL,
	`external_id` text,
	`group_id` text,
	`applied_at` integer,
	`scim` integer DEFAULT false NOT NULL,
	`created_at` integer NOT NULL,
	`changed_at` integer NOT NULL,
	FOREIGN KEY (`provider_id`) REFERENCES `providers`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`group_id`) REFERENCES `groups`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `provider_groups_name` ON `provider_groups` (`provider_id`,`name`);--> statement-breakpoint
CREATE INDEX `provider_groups_group` ON `provider_groups` (`group_id`);--> statement-breakpoint
CREATE INDEX `provider_groups_scim` ON `provider_groups` (`provider_id`,`scim`,`id`);--> statement-breakpoint
CREATE TABLE `provider_members` (
	`provider_group_id` text NOT NULL,
	`account_id` text NOT NULL,
	PRIMARY KEY(`provider_group_id`, `account_id`),
	FOREIGN KEY (`provider_group_id`) REFERENCES `provider_groups`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`account_id`) REFERENCES `provider_accounts`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `provider_members_account` ON `provider_members` (`account_id`);--> statement-breakpoint
CREATE TABLE `provider_statements` (
	`id` text PRIMARY KEY NOT NULL,
	`expires_at` integer NOT NULL
);
--> statement-breakpoint
CREATE INDEX `provider_statements_expire` ON `provider_statements` (`expires_at`);--> statement-breakpoint
CREATE TABLE `providers` (
	`id` text PRIMARY KEY NOT NULL,
	`name` text NOT NULL,
	`protocol` text NOT NULL,
	`issuer` text NOT NULL,
	`settings` text NOT NULL,
	`secret` blob,
	`enabled` integer DEFAULT false NOT NULL,
	`required` integer DEFAULT false NOT NULL,
	`joins` text DEFAULT 'invited' NOT NULL,
	`domains` text DEFAULT '[]' NOT NULL,
	`last_test` text,
	`scim_hash` text,
	`scim_before` text,
	`scim_before_until` integer,
	`created_at` integer NOT NULL
);
--> statement-breakpoint
ALTER TABLE `groups` ADD `provider_id` text;--> statement-breakpoint
ALTER TABLE `sessions` ADD `provider_id` text;--> statement-breakpoint
ALTER TABLE `sessions` ADD `provider_sid` text;--> statement-breakpoint
CREATE INDEX `sessions_provider` ON `sessions` (`provider_id`,`provider_sid`) WHERE provider_id is not null and ended_at is null;