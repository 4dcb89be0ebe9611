-- What an earlier Galtry left behind when it erased an entry or a vault.
DELETE FROM `attachments` WHERE `entry_id` NOT IN (SELECT `node_id` FROM `entries`);
--> statement-breakpoint
DELETE FROM `sightings` WHERE `entry_id` NOT IN (SELECT `node_id` FROM `entries`);
--> statement-breakpoint
DELETE FROM `pins` WHERE `entry_id` NOT IN (SELECT `node_id` FROM `entries`);
--> statement-breakpoint
DELETE FROM `met` WHERE `entry_id` NOT IN (SELECT `node_id` FROM `entries`);
--> statement-breakpoint
DELETE FROM `ticks` WHERE `entry_id` NOT IN (SELECT `node_id` FROM `entries`);
--> statement-breakpoint
DELETE FROM `yeses` WHERE `entry_id` NOT IN (SELECT `node_id` FROM `entries`);
--> statement-breakpoint
DELETE FROM `handovers` WHERE `entry_id` NOT IN (SELECT `node_id` FROM `entries`);
--> statement-breakpoint
DELETE FROM `import_updates` WHERE `entry_id` NOT IN (SELECT `node_id` FROM `entries`);
--> statement-breakpoint
DELETE FROM `import_rows` WHERE `entry_id` NOT IN (SELECT `node_id` FROM `entries`);
--> statement-breakpoint
DELETE FROM `entry_versions` WHERE `entry_id` NOT IN (SELECT `node_id` FROM `entries`);
--> statement-breakpoint
DELETE FROM `fingerprints` WHERE `version_id` NOT IN (SELECT `id` FROM `entry_versions`);
--> statement-breakpoint
DELETE FROM `conditions` WHERE `version_id` NOT IN (SELECT `id` FROM `entry_versions`);
--> statement-breakpoint
DELETE FROM `attachment_pieces` WHERE `attachment_id` NOT IN (SELECT `id` FROM `attachments`);
--> statement-breakpoint
DELETE FROM `acceptances` WHERE `vault_id` NOT IN (SELECT `node_id` FROM `vaults`);
--> statement-breakpoint
DELETE FROM `ledger_views` WHERE `vault_id` NOT IN (SELECT `node_id` FROM `vaults`);
--> statement-breakpoint
DELETE FROM `vault_keys` WHERE `vault_id` NOT IN (SELECT `node_id` FROM `vaults`);
--> statement-breakpoint
CREATE TABLE `leases` (
	`work` text PRIMARY KEY NOT NULL,
	`process` text NOT NULL,
	`until` integer NOT NULL
);
--> statement-breakpoint
CREATE TABLE `__new_attachment_pieces` (
	`attachment_id` text NOT NULL,
	`number` integer NOT NULL,
	`sealed` blob NOT NULL,
	`key_version` integer,
	PRIMARY KEY(`attachment_id`, `number`),
	FOREIGN KEY (`attachment_id`) REFERENCES `attachments`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
INSERT INTO `__new_attachment_pieces`("attachment_id", "number", "sealed") SELECT "attachment_id", "number", "sealed" FROM `attachment_pieces`;--> statement-breakpoint
DROP TABLE `attachment_pieces`;--> statement-breakpoint
ALTER TABLE `__new_attachment_pieces` RENAME TO `attachment_pieces`;--> statement-breakpoint
CREATE TABLE `__new_vault_keys` (
	`vault_id` text NOT NULL,
	`version` integer NOT NULL,
	`wrapped` blob NOT NULL,
	`created_at` integer NOT NULL,
	`stopped_at` integer,
	`unused_since` integer,
	PRIMARY KEY(`vault_id`, `version`),
	FOREIGN KEY (`vault_id`) REFERENCES `vaults`(`node_id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
INSERT INTO `__new_vault_keys`("vault_id", "version", "wrapped", "created_at") SELECT "vault_id", "version", "wrapped", "created_at" FROM `vault_keys`;--> statement-breakpoint
DROP TABLE `vault_keys`;--> statement-breakpoint
ALTER TABLE `__new_vault_keys` RENAME TO `vault_keys`;--> statement-breakpoint
CREATE TABLE `__new_asks` (
	`id` text PRIMARY KEY NOT NULL,
	`person_id` text NOT NULL,
	`node_id` text NOT NULL,
	`level` text NOT NULL,
	`until_at` integer,
	`why` text NOT NULL,
	`state` text NOT NULL,
	`asked_at` integer NOT NULL,
	`passed_to` text,
	`reminded_at` integer,
	`raised_at` integer,
	`answered_at` integer,
	`answered_by` text,
	`given` text,
	`word` text DEFAULT '' NOT NULL,
	`site` text DEFAULT '' NOT NULL,
	FOREIGN KEY (`person_id`) REFERENCES `persons`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
INSERT INTO `__new_asks`("id", "person_id", "node_id", "level", "until_at", "why", "state", "asked_at", "passed_to", "reminded_at", "raised_at", "answered_at", "answered_by", "given", "word", "site") SELECT "id", "person_id", "node_id", "level", "until_at", "why", "state", "asked_at", "passed_to", "reminded_at", "raised_at", "answered_at", "answered_by", "given", "word", "site" FROM `asks`;--> statement-breakpoint
DROP TABLE `asks`;--> statement-breakpoint
ALTER TABLE `__new_asks` RENAME TO `asks`;--> statement-breakpoint
CREATE INDEX `asks_answered` ON `asks` (`answered_at`) WHERE answered_at is not null;--> statement-breakpoint
CREATE INDEX `asks_state` ON `asks` (`state`,`node_id`);--> statement-breakpoint
CREATE INDEX `asks_person` ON `asks` (`person_id`,`state`);--> statement-breakpoint
CREATE TABLE `__new_attachments` (
	`id` text PRIMARY KEY NOT NULL,
	`entry_id` text NOT NULL,
	`vault_id` text NOT NULL,
	`key_version` integer NOT NULL,
	`name` text NOT NULL,
	`type` text NOT NULL,
	`size` integer NOT NULL,
	`pieces` integer NOT NULL,
	`created_at` integer NOT NULL,
	`created_by` text NOT NULL,
	`complete_at` integer,
	FOREIGN KEY (`entry_id`) REFERENCES `entries`(`node_id`) ON UPDATE no action ON DELETE no action DEFERRABLE INITIALLY DEFERRED,
	FOREIGN KEY (`vault_id`,`key_version`) REFERENCES `vault_keys`(`vault_id`,`version`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
INSERT INTO `__new_attachments`("id", "entry_id", "vault_id", "key_version", "name", "type", "size", "pieces", "created_at", "created_by", "complete_at") SELECT "id", "entry_id", "vault_id", "key_version", "name", "type", "size", "pieces", "created_at", "created_by", "complete_at" FROM `attachments`;--> statement-breakpoint
DROP TABLE `attachments`;--> statement-breakpoint
ALTER TABLE `__new_attachments` RENAME TO `attachments`;--> statement-breakpoint
CREATE INDEX `attachments_key` ON `attachments` (`vault_id`,`key_version`);--> statement-breakpoint
CREATE INDEX `attachments_begun` ON `attachments` (`created_at`) WHERE complete_at is null;--> statement-breakpoint
CREATE INDEX `attachments_entry` ON `attachments` (`entry_id`);--> statement-breakpoint
CREATE TABLE `__new_entry_versions` (
	`id` text PRIMARY KEY NOT NULL,
	`entry_id` text NOT NULL,
	`number` integer NOT NULL,
	`vault_id` text NOT NULL,
	`key_version` integer NOT NULL,
	`open` text NOT NULL,
	`sealed` blob NOT NULL,
	`created_at` integer NOT NULL,
	`created_by` text NOT NULL,
	`refused_at` integer,
	FOREIGN KEY (`entry_id`) REFERENCES `entries`(`node_id`) ON UPDATE no action ON DELETE no action DEFERRABLE INITIALLY DEFERRED,
	FOREIGN KEY (`vault_id`,`key_version`) REFERENCES `vault_keys`(`vault_id`,`version`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
INSERT INTO `__new_entry_versions`("id", "entry_id", "number", "vault_id", "key_version", "open", "sealed", "created_at", "created_by", "refused_at") SELECT "id", "entry_id", "number", "vault_id", "key_version", "open", "sealed", "created_at", "created_by", "refused_at" FROM `entry_versions`;--> statement-breakpoint
DROP TABLE `entry_versions`;--> statement-breakpoint
ALTER TABLE `__new_entry_versions` RENAME TO `entry_versions`;--> statement-breakpoint
CREATE INDEX `entry_versions_key` ON `entry_versions` (`vault_id`,`key_version`);--> statement-breakpoint
CREATE UNIQUE INDEX `entry_versions_number` ON `entry_versions` (`entry_id`,`number`);--> statement-breakpoint
CREATE INDEX `entry_versions_kind` ON `entry_versions` (json_extract(`open`, '$.kind'));--> statement-breakpoint
CREATE TABLE `__new_handovers` (
	`id` text PRIMARY KEY NOT NULL,
	`token_hash` text NOT NULL,
	`entry_id` text NOT NULL,
	`vault_id` text NOT NULL,
	`maker_id` text NOT NULL,
	`labels` text NOT NULL,
	`sealed` blob,
	`word_hash` text,
	`made_at` integer NOT NULL,
	`expires_at` integer NOT NULL,
	`openings` integer NOT NULL,
	`opened_at` text DEFAULT '[]' NOT NULL,
	`opener` text,
	`wrong_words` integer DEFAULT 0 NOT NULL,
	`withdrawn_at` integer,
	`mail_to` text,
	`codes_at` text DEFAULT '[]' NOT NULL,
	`code_mark` text,
	`code_mail_id` text,
	FOREIGN KEY (`entry_id`) REFERENCES `entries`(`node_id`) ON UPDATE no action ON DELETE no action DEFERRABLE INITIALLY DEFERRED,
	FOREIGN KEY (`maker_id`) REFERENCES `persons`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
INSERT INTO `__new_handovers`("id", "token_hash", "entry_id", "vault_id", "maker_id", "labels", "sealed", "word_hash", "made_at", "expires_at", "openings", "opened_at", "opener", "wrong_words", "withdrawn_at", "mail_to", "codes_at", "code_mark", "code_mail_id") SELECT "id", "token_hash", "entry_id", "vault_id", "maker_id", "labels", "sealed", "word_hash", "made_at", "expires_at", "openings", "opened_at", "opener", "wrong_words", "withdrawn_at", "mail_to", "codes_at", "code_mark", "code_mail_id" FROM `handovers`;--> statement-breakpoint
DROP TABLE `handovers`;--> statement-breakpoint
ALTER TABLE `__new_handovers` RENAME TO `handovers`;--> statement-breakpoint
CREATE UNIQUE INDEX `handovers_token_hash_unique` ON `handovers` (`token_hash`);--> statement-breakpoint
CREATE INDEX `handovers_expiry` ON `handovers` (`expires_at`);--> statement-breakpoint
CREATE INDEX `handovers_entry` ON `handovers` (`entry_id`);--> statement-breakpoint
CREATE INDEX `handovers_live` ON `handovers` (`expires_at`) WHERE sealed is not null;--> statement-breakpoint
CREATE TABLE `__new_imports` (
	`id` text PRIMARY KEY NOT NULL,
	`vault_id` text NOT NULL,
	`parent_id` text NOT NULL,
	`person_id` text NOT NULL,
	`process` text NOT NULL,
	`begun_at` integer NOT NULL,
	`moved_at` integer NOT NULL,
	`published_at` integer,
	`cancelled_at` integer,
	`undone_at` integer,
	`rows` integer DEFAULT 0 NOT NULL,
	`folders_made` text NOT NULL,
	FOREIGN KEY (`vault_id`) REFERENCES `nodes`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`parent_id`) REFERENCES `nodes`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`person_id`) REFERENCES `persons`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
INSERT INTO `__new_imports`("id", "vault_id", "parent_id", "person_id", "process", "begun_at", "moved_at", "published_at", "cancelled_at", "undone_at", "rows", "folders_made") SELECT "id", "vault_id", "parent_id", "person_id", "process", "begun_at", "moved_at", "published_at", "cancelled_at", "undone_at", "rows", "folders_made" FROM `imports`;--> statement-breakpoint
DROP TABLE `imports`;--> statement-breakpoint
ALTER TABLE `__new_imports` RENAME TO `imports`;--> statement-breakpoint
CREATE INDEX `imports_published` ON `imports` (`published_at`) WHERE published_at is not null;--> statement-breakpoint
CREATE INDEX `imports_vault` ON `imports` (`vault_id`);--> statement-breakpoint
CREATE INDEX `imports_parent` ON `imports` (`parent_id`);--> statement-breakpoint
CREATE INDEX `imports_open` ON `imports` (`process`) WHERE published_at is null and cancelled_at is null;--> statement-breakpoint
CREATE INDEX `imports_cancelled` ON `imports` (`id`) WHERE cancelled_at is not null;--> statement-breakpoint
CREATE TABLE `__new_takings` (
	`id` text PRIMARY KEY NOT NULL,
	`vault_id` text NOT NULL,
	`person_id` text NOT NULL,
	`session_id` text,
	`at` integer NOT NULL,
	FOREIGN KEY (`vault_id`) REFERENCES `nodes`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`person_id`) REFERENCES `persons`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
INSERT INTO `__new_takings`("id", "vault_id", "person_id", "session_id", "at") SELECT "id", "vault_id", "person_id", "session_id", "at" FROM `takings`;--> statement-breakpoint
DROP TABLE `takings`;--> statement-breakpoint
ALTER TABLE `__new_takings` RENAME TO `takings`;--> statement-breakpoint
CREATE INDEX `takings_at` ON `takings` (`at`);--> statement-breakpoint
CREATE INDEX `takings_vault` ON `takings` (`vault_id`);--> statement-breakpoint
CREATE TABLE `__new_acceptances` (
	`person_id` text NOT NULL,
	`vault_id` text NOT NULL,
	`note` text NOT NULL,
	`at` integer NOT NULL,
	PRIMARY KEY(`person_id`, `vault_id`),
	FOREIGN KEY (`person_id`) REFERENCES `persons`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`vault_id`) REFERENCES `vaults`(`node_id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
INSERT INTO `__new_acceptances`("person_id", "vault_id", "note", "at") SELECT "person_id", "vault_id", "note", "at" FROM `acceptances`;--> statement-breakpoint
DROP TABLE `acceptances`;--> statement-breakpoint
ALTER TABLE `__new_acceptances` RENAME TO `acceptances`;--> statement-breakpoint
CREATE INDEX `acceptances_vault` ON `acceptances` (`vault_id`);--> statement-breakpoint
CREATE TABLE `__new_conditions` (
	`version_id` text NOT NULL,
	`field` text NOT NULL,
	`guesses` real NOT NULL,
	PRIMARY KEY(`version_id`, `field`),
	FOREIGN KEY (`version_id`) REFERENCES `entry_versions`(`id`) ON UPDATE no action ON DELETE no action DEFERRABLE INITIALLY DEFERRED
);
--> statement-breakpoint
INSERT INTO `__new_conditions`("version_id", "field", "guesses") SELECT "version_id", "field", "guesses" FROM `conditions`;--> statement-breakpoint
DROP TABLE `conditions`;--> statement-breakpoint
ALTER TABLE `__new_conditions` RENAME TO `conditions`;--> statement-breakpoint
CREATE TABLE `__new_entries` (
	`node_id` text PRIMARY KEY NOT NULL,
	`kind` text NOT NULL,
	`name` text NOT NULL,
	`description` text DEFAULT '' NOT NULL,
	`fields` text NOT NULL,
	`sign_in_page` text NOT NULL,
	`reach` text NOT NULL,
	`host` text NOT NULL,
	`site` text NOT NULL,
	`notes` text DEFAULT '' NOT NULL,
	`tags` text NOT NULL,
	`extras` text NOT NULL,
	`use_sees_user_name` integer DEFAULT false NOT NULL,
	`guarded_fill` integer DEFAULT false NOT NULL,
	`plain_http` integer DEFAULT false NOT NULL,
	`has_code` integer DEFAULT false NOT NULL,
	`steps` text NOT NULL,
	`version_id` text NOT NULL,
	`changed_at` integer NOT NULL,
	`changed_by` text NOT NULL,
	`created_at` integer NOT NULL,
	`created_by` text NOT NULL,
	`binned_at` integer,
	`binned_by` text,
	`binned_with` text,
	`aside_at` integer,
	`aside_by` text,
	`aside_with` text,
	`ask_again` integer DEFAULT false NOT NULL,
	`asks_first` integer DEFAULT 0 NOT NULL,
	`yes_minutes` integer DEFAULT 30 NOT NULL,
	`filling` text DEFAULT 'send' NOT NULL,
	`listed` integer DEFAULT false NOT NULL,
	`picture_id` text,
	`unrated` integer DEFAULT true NOT NULL,
	FOREIGN KEY (`node_id`) REFERENCES `nodes`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`version_id`) REFERENCES `entry_versions`(`id`) ON UPDATE no action ON DELETE no action DEFERRABLE INITIALLY DEFERRED
);
--> statement-breakpoint
INSERT INTO `__new_entries`("node_id", "kind", "name", "description", "fields", "sign_in_page", "reach", "host", "site", "notes", "tags", "extras", "use_sees_user_name", "guarded_fill", "plain_http", "has_code", "steps", "version_id", "changed_at", "changed_by", "created_at", "created_by", "binned_at", "binned_by", "binned_with", "aside_at", "aside_by", "aside_with", "ask_again", "asks_first", "yes_minutes", "filling", "listed", "picture_id", "unrated") SELECT "node_id", "kind", "name", "description", "fields", "sign_in_page", "reach", "host", "site", "notes", "tags", "extras", "use_sees_user_name", "guarded_fill", "plain_http", "has_code", "steps", "version_id", "changed_at", "changed_by", "created_at", "created_by", "binned_at", "binned_by", "binned_with", "aside_at", "aside_by", "aside_with", "ask_again", "asks_first", "yes_minutes", "filling", "listed", "picture_id", "unrated" FROM `entries`;--> statement-breakpoint
DROP TABLE `entries`;--> statement-breakpoint
ALTER TABLE `__new_entries` RENAME TO `entries`;--> statement-breakpoint
CREATE INDEX `entries_binned_with` ON `entries` (`binned_with`) WHERE binned_with is not null;--> statement-breakpoint
CREATE INDEX `entries_unrated` ON `entries` (`node_id`) WHERE unrated = 1;--> statement-breakpoint
CREATE INDEX `entries_site` ON `entries` (`site`);--> statement-breakpoint
CREATE INDEX `entries_version` ON `entries` (`version_id`);--> statement-breakpoint
CREATE INDEX `entries_kind` ON `entries` (`kind`);--> statement-breakpoint
CREATE INDEX `entries_picture` ON `entries` (`picture_id`) WHERE picture_id is not null;--> statement-breakpoint
CREATE INDEX `entries_listed` ON `entries` (`listed`) WHERE listed = 1;--> statement-breakpoint
CREATE INDEX `entries_binned` ON `entries` (`binned_at`) WHERE binned_at is not null;--> statement-breakpoint
CREATE INDEX `entries_aside` ON `entries` (`aside_with`) WHERE aside_with is not null;--> statement-breakpoint
CREATE TABLE `__new_failed_sign_ins` (
	`person_id` text NOT NULL,
	`minute` integer NOT NULL,
	`count` integer NOT NULL,
	PRIMARY KEY(`person_id`, `minute`),
	FOREIGN KEY (`person_id`) REFERENCES `persons`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
INSERT INTO `__new_failed_sign_ins`("person_id", "minute", "count") SELECT "person_id", "minute", "count" FROM `failed_sign_ins`;--> statement-breakpoint
DROP TABLE `failed_sign_ins`;--> statement-breakpoint
ALTER TABLE `__new_failed_sign_ins` RENAME TO `failed_sign_ins`;--> statement-breakpoint
CREATE INDEX `failed_sign_ins_minute` ON `failed_sign_ins` (`minute`);--> statement-breakpoint
CREATE TABLE `__new_fingerprints` (
	`version_id` text NOT NULL,
	`field` text NOT NULL,
	`fingerprint` text NOT NULL,
	PRIMARY KEY(`version_id`, `field`),
	FOREIGN KEY (`version_id`) REFERENCES `entry_versions`(`id`) ON UPDATE no action ON DELETE no action DEFERRABLE INITIALLY DEFERRED
);
--> statement-breakpoint
INSERT INTO `__new_fingerprints`("version_id", "field", "fingerprint") SELECT "version_id", "field", "fingerprint" FROM `fingerprints`;--> statement-breakpoint
DROP TABLE `fingerprints`;--> statement-breakpoint
ALTER TABLE `__new_fingerprints` RENAME TO `fingerprints`;--> statement-breakpoint
CREATE INDEX `fingerprints_value` ON `fingerprints` (`fingerprint`);--> statement-breakpoint
CREATE TABLE `__new_folders` (
	`node_id` text PRIMARY KEY NOT NULL,
	`name` text NOT NULL,
	`binned_at` integer,
	`binned_by` text,
	`binned_with` text,
	FOREIGN KEY (`node_id`) REFERENCES `nodes`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
INSERT INTO `__new_folders`("node_id", "name", "binned_at", "binned_by", "binned_with") SELECT "node_id", "name", "binned_at", "binned_by", "binned_with" FROM `folders`;--> statement-breakpoint
DROP TABLE `folders`;--> statement-breakpoint
ALTER TABLE `__new_folders` RENAME TO `folders`;--> statement-breakpoint
CREATE INDEX `folders_binned` ON `folders` (`binned_at`) WHERE binned_at is not null;--> statement-breakpoint
CREATE INDEX `folders_binned_with` ON `folders` (`binned_with`) WHERE binned_with is not null;--> statement-breakpoint
CREATE TABLE `__new_grants` (
	`id` text PRIMARY KEY NOT NULL,
	`node_id` text NOT NULL,
	`subject_kind` text NOT NULL,
	`subject_id` text NOT NULL,
	`level` text NOT NULL,
	`from_at` integer,
	`until_at` integer,
	`weekly` text,
	`why` text DEFAULT '' NOT NULL,
	`given_by` text NOT NULL,
	`valid_from` integer NOT NULL,
	`valid_until` integer,
	`command_id` text NOT NULL,
	FOREIGN KEY (`node_id`) REFERENCES `nodes`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
INSERT INTO `__new_grants`("id", "node_id", "subject_kind", "subject_id", "level", "from_at", "until_at", "weekly", "why", "given_by", "valid_from", "valid_until", "command_id") SELECT "id", "node_id", "subject_kind", "subject_id", "level", "from_at", "until_at", "weekly", "why", "given_by", "valid_from", "valid_until", "command_id" FROM `grants`;--> statement-breakpoint
DROP TABLE `grants`;--> statement-breakpoint
ALTER TABLE `__new_grants` RENAME TO `grants`;--> statement-breakpoint
CREATE INDEX `grants_end` ON `grants` (`until_at`) WHERE valid_until is null and until_at is not null;--> statement-breakpoint
CREATE INDEX `grants_from` ON `grants` (`from_at`) WHERE valid_until is null and from_at is not null;--> statement-breakpoint
CREATE INDEX `grants_weekly` ON `grants` (`valid_until`) WHERE weekly is not null;--> statement-breakpoint
CREATE INDEX `grants_node` ON `grants` (`node_id`,`valid_until`);--> statement-breakpoint
CREATE INDEX `grants_subject` ON `grants` (`subject_id`,`valid_until`);--> statement-breakpoint
CREATE INDEX `grants_edges` ON `grants` (`valid_until`,`from_at`,`until_at`);--> statement-breakpoint
CREATE INDEX `grants_giver` ON `grants` (`given_by`,`valid_until`,`until_at`);--> statement-breakpoint
CREATE TABLE `__new_import_rows` (
	`entry_id` text PRIMARY KEY NOT NULL,
	`import_id` text NOT NULL,
	`version_id` text NOT NULL,
	`place_id` text NOT NULL,
	`folder` text NOT NULL,
	FOREIGN KEY (`entry_id`) REFERENCES `entries`(`node_id`) ON UPDATE no action ON DELETE no action DEFERRABLE INITIALLY DEFERRED,
	FOREIGN KEY (`import_id`) REFERENCES `imports`(`id`) ON UPDATE no action ON DELETE no action DEFERRABLE INITIALLY DEFERRED
);
--> statement-breakpoint
INSERT INTO `__new_import_rows`("entry_id", "import_id", "version_id", "place_id", "folder") SELECT "entry_id", "import_id", "version_id", "place_id", "folder" FROM `import_rows`;--> statement-breakpoint
DROP TABLE `import_rows`;--> statement-breakpoint
ALTER TABLE `__new_import_rows` RENAME TO `import_rows`;--> statement-breakpoint
CREATE INDEX `import_rows_import` ON `import_rows` (`import_id`);--> statement-breakpoint
CREATE TABLE `__new_import_updates` (
	`import_id` text NOT NULL,
	`entry_id` text NOT NULL,
	`before_version_id` text NOT NULL,
	`version_id` text NOT NULL,
	`pending` text,
	`sealed` blob,
	PRIMARY KEY(`import_id`, `entry_id`),
	FOREIGN KEY (`import_id`) REFERENCES `imports`(`id`) ON UPDATE no action ON DELETE no action DEFERRABLE INITIALLY DEFERRED,
	FOREIGN KEY (`entry_id`) REFERENCES `entries`(`node_id`) ON UPDATE no action ON DELETE no action DEFERRABLE INITIALLY DEFERRED
);
--> statement-breakpoint
INSERT INTO `__new_import_updates`("import_id", "entry_id", "before_version_id", "version_id", "pending", "sealed") SELECT "import_id", "entry_id", "before_version_id", "version_id", "pending", "sealed" FROM `import_updates`;--> statement-breakpoint
DROP TABLE `import_updates`;--> statement-breakpoint
ALTER TABLE `__new_import_updates` RENAME TO `import_updates`;--> statement-breakpoint
CREATE INDEX `import_updates_entry` ON `import_updates` (`entry_id`);--> statement-breakpoint
CREATE TABLE `__new_known_browsers` (
	`token_hash` text NOT NULL,
	`person_id` text NOT NULL,
	`last_used_at` integer NOT NULL,
	PRIMARY KEY(`token_hash`, `person_id`),
	FOREIGN KEY (`person_id`) REFERENCES `persons`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
INSERT INTO `__new_known_browsers`("token_hash", "person_id", "last_used_at") SELECT "token_hash", "person_id", "last_used_at" FROM `known_browsers`;--> statement-breakpoint
DROP TABLE `known_browsers`;--> statement-breakpoint
ALTER TABLE `__new_known_browsers` RENAME TO `known_browsers`;--> statement-breakpoint
CREATE INDEX `known_browsers_used` ON `known_browsers` (`last_used_at`);--> statement-breakpoint
CREATE TABLE `__new_lanyards` (
	`id` text PRIMARY KEY NOT NULL,
	`person_id` text NOT NULL,
	`token_hash` text NOT NULL,
	`thumbprint` text NOT NULL,
	`browser` text NOT NULL,
	`version` text NOT NULL,
	`created_at` integer NOT NULL,
	`last_used_at` integer NOT NULL,
	`expires_at` integer NOT NULL,
	`ended_at` integer,
	`ended_by` text,
	`ended_why` text,
	FOREIGN KEY (`person_id`) REFERENCES `persons`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
INSERT INTO `__new_lanyards`("id", "person_id", "token_hash", "thumbprint", "browser", "version", "created_at", "last_used_at", "expires_at", "ended_at", "ended_by", "ended_why") SELECT "id", "person_id", "token_hash", "thumbprint", "browser", "version", "created_at", "last_used_at", "expires_at", "ended_at", "ended_by", "ended_why" FROM `lanyards`;--> statement-breakpoint
DROP TABLE `lanyards`;--> statement-breakpoint
ALTER TABLE `__new_lanyards` RENAME TO `lanyards`;--> statement-breakpoint
CREATE UNIQUE INDEX `lanyards_token_hash_unique` ON `lanyards` (`token_hash`);--> statement-breakpoint
CREATE INDEX `lanyards_ended` ON `lanyards` (`ended_at`) WHERE ended_at is not null;--> statement-breakpoint
CREATE INDEX `lanyards_expiry` ON `lanyards` (`expires_at`);--> statement-breakpoint
CREATE INDEX `lanyards_person` ON `lanyards` (`person_id`);--> statement-breakpoint
CREATE TABLE `__new_ledger_views` (
	`person_id` text NOT NULL,
	`vault_id` text NOT NULL,
	`view` text NOT NULL,
	PRIMARY KEY(`person_id`, `vault_id`),
	FOREIGN KEY (`person_id`) REFERENCES `persons`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`vault_id`) REFERENCES `vaults`(`node_id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
INSERT INTO `__new_ledger_views`("person_id", "vault_id", "view") SELECT "person_id", "vault_id", "view" FROM `ledger_views`;--> statement-breakpoint
DROP TABLE `ledger_views`;--> statement-breakpoint
ALTER TABLE `__new_ledger_views` RENAME TO `ledger_views`;--> statement-breakpoint
CREATE INDEX `ledger_views_vault` ON `ledger_views` (`vault_id`);--> statement-breakpoint
CREATE TABLE `__new_letterboxes` (
	`id` text PRIMARY KEY NOT NULL,
	`token_hash` text NOT NULL,
	`node_id` text NOT NULL,
	`maker_id` text NOT NULL,
	`name` text NOT NULL,
	`labels` text NOT NULL,
	`made_at` integer NOT NULL,
	`expires_at` integer NOT NULL,
	`dropped_at` integer,
	`entry_id` text,
	`closed_at` integer,
	FOREIGN KEY (`node_id`) REFERENCES `nodes`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`maker_id`) REFERENCES `persons`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
INSERT INTO `__new_letterboxes`("id", "token_hash", "node_id", "maker_id", "name", "labels", "made_at", "expires_at", "dropped_at", "entry_id", "closed_at") SELECT "id", "token_hash", "node_id", "maker_id", "name", "labels", "made_at", "expires_at", "dropped_at", "entry_id", "closed_at" FROM `letterboxes`;--> statement-breakpoint
DROP TABLE `letterboxes`;--> statement-breakpoint
ALTER TABLE `__new_letterboxes` RENAME TO `letterboxes`;--> statement-breakpoint
CREATE UNIQUE INDEX `letterboxes_token_hash_unique` ON `letterboxes` (`token_hash`);--> statement-breakpoint
CREATE INDEX `letterboxes_node` ON `letterboxes` (`node_id`);--> statement-breakpoint
CREATE TABLE `__new_links` (
	`id` text PRIMARY KEY NOT NULL,
	`token_hash` text NOT NULL,
	`purpose` text NOT NULL,
	`person_id` text,
	`created_at` integer NOT NULL,
	`expires_at` integer NOT NULL,
	`used_at` integer,
	`withdrawn_at` integer,
	FOREIGN KEY (`person_id`) REFERENCES `persons`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
INSERT INTO `__new_links`("id", "token_hash", "purpose", "person_id", "created_at", "expires_at", "used_at", "withdrawn_at") SELECT "id", "token_hash", "purpose", "person_id", "created_at", "expires_at", "used_at", "withdrawn_at" FROM `links`;--> statement-breakpoint
DROP TABLE `links`;--> statement-breakpoint
ALTER TABLE `__new_links` RENAME TO `links`;--> statement-breakpoint
CREATE UNIQUE INDEX `links_token_hash_unique` ON `links` (`token_hash`);--> statement-breakpoint
CREATE INDEX `links_open` ON `links` (`person_id`,`purpose`) WHERE used_at is null and withdrawn_at is null;--> statement-breakpoint
CREATE INDEX `links_expiry` ON `links` (`expires_at`);--> statement-breakpoint
CREATE TABLE `__new_mappings` (
	`id` text PRIMARY KEY NOT NULL,
	`person_id` text NOT NULL,
	`name` text NOT NULL,
	`mapping` text NOT NULL,
	`changed_at` integer NOT NULL,
	FOREIGN KEY (`person_id`) REFERENCES `persons`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
INSERT INTO `__new_mappings`("id", "person_id", "name", "mapping", "changed_at") SELECT "id", "person_id", "name", "mapping", "changed_at" FROM `mappings`;--> statement-breakpoint
DROP TABLE `mappings`;--> statement-breakpoint
ALTER TABLE `__new_mappings` RENAME TO `mappings`;--> statement-breakpoint
CREATE INDEX `mappings_person` ON `mappings` (`person_id`);--> statement-breakpoint
CREATE TABLE `__new_memberships` (
	`id` text PRIMARY KEY NOT NULL,
	`group_id` text NOT NULL,
	`person_id` text NOT NULL,
	`from_at` integer,
	`until_at` integer,
	`keeper` integer DEFAULT false NOT NULL,
	`valid_from` integer NOT NULL,
	`valid_until` integer,
	`command_id` text NOT NULL,
	FOREIGN KEY (`person_id`) REFERENCES `persons`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
INSERT INTO `__new_memberships`("id", "group_id", "person_id", "from_at", "until_at", "keeper", "valid_from", "valid_until", "command_id") SELECT "id", "group_id", "person_id", "from_at", "until_at", "keeper", "valid_from", "valid_until", "command_id" FROM `memberships`;--> statement-breakpoint
DROP TABLE `memberships`;--> statement-breakpoint
ALTER TABLE `__new_memberships` RENAME TO `memberships`;--> statement-breakpoint
CREATE INDEX `memberships_from` ON `memberships` (`from_at`) WHERE valid_until is null and from_at is not null;--> statement-breakpoint
CREATE INDEX `memberships_end` ON `memberships` (`until_at`) WHERE valid_until is null and until_at is not null;--> statement-breakpoint
CREATE INDEX `memberships_person` ON `memberships` (`person_id`,`valid_until`);--> statement-breakpoint
CREATE UNIQUE INDEX `memberships_current` ON `memberships` (`group_id`,`person_id`) WHERE valid_until is null;--> statement-breakpoint
CREATE TABLE `__new_met` (
	`person_id` text NOT NULL,
	`entry_id` text NOT NULL,
	`at` integer NOT NULL,
	PRIMARY KEY(`person_id`, `entry_id`),
	FOREIGN KEY (`person_id`) REFERENCES `persons`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`entry_id`) REFERENCES `entries`(`node_id`) ON UPDATE no action ON DELETE no action DEFERRABLE INITIALLY DEFERRED
);
--> statement-breakpoint
INSERT INTO `__new_met`("person_id", "entry_id", "at") SELECT "person_id", "entry_id", "at" FROM `met`;--> statement-breakpoint
DROP TABLE `met`;--> statement-breakpoint
ALTER TABLE `__new_met` RENAME TO `met`;--> statement-breakpoint
CREATE INDEX `met_entry` ON `met` (`entry_id`);--> statement-breakpoint
CREATE TABLE `__new_never_kept` (
	`person_id` text NOT NULL,
	`site` text NOT NULL,
	`at` integer NOT NULL,
	PRIMARY KEY(`person_id`, `site`),
	FOREIGN KEY (`person_id`) REFERENCES `persons`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
INSERT INTO `__new_never_kept`("person_id", "site", "at") SELECT "person_id", "site", "at" FROM `never_kept`;--> statement-breakpoint
DROP TABLE `never_kept`;--> statement-breakpoint
ALTER TABLE `__new_never_kept` RENAME TO `never_kept`;--> statement-breakpoint
CREATE TABLE `__new_notices` (
	`id` text PRIMARY KEY NOT NULL,
	`person_id` text NOT NULL,
	`at` integer NOT NULL,
	`text` text NOT NULL,
	`node_id` text,
	`put_away_at` integer,
	FOREIGN KEY (`person_id`) REFERENCES `persons`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
INSERT INTO `__new_notices`("id", "person_id", "at", "text", "node_id", "put_away_at") SELECT "id", "person_id", "at", "text", "node_id", "put_away_at" FROM `notices`;--> statement-breakpoint
DROP TABLE `notices`;--> statement-breakpoint
ALTER TABLE `__new_notices` RENAME TO `notices`;--> statement-breakpoint
CREATE INDEX `notices_at` ON `notices` (`at`);--> statement-breakpoint
CREATE INDEX `notices_put_away` ON `notices` (`put_away_at`) WHERE put_away_at is not null;--> statement-breakpoint
CREATE INDEX `notices_person` ON `notices` (`person_id`,`put_away_at`);--> statement-breakpoint
CREATE TABLE `__new_pins` (
	`person_id` text NOT NULL,
	`entry_id` text NOT NULL,
	`at` integer NOT NULL,
	PRIMARY KEY(`person_id`, `entry_id`),
	FOREIGN KEY (`person_id`) REFERENCES `persons`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`entry_id`) REFERENCES `entries`(`node_id`) ON UPDATE no action ON DELETE no action DEFERRABLE INITIALLY DEFERRED
);
--> statement-breakpoint
INSERT INTO `__new_pins`("person_id", "entry_id", "at") SELECT "person_id", "entry_id", "at" FROM `pins`;--> statement-breakpoint
DROP TABLE `pins`;--> statement-breakpoint
ALTER TABLE `__new_pins` RENAME TO `pins`;--> statement-breakpoint
CREATE INDEX `pins_entry` ON `pins` (`entry_id`);--> statement-breakpoint
CREATE TABLE `__new_places` (
	`id` text PRIMARY KEY NOT NULL,
	`node_id` text NOT NULL,
	`parent_id` text,
	`vault_id` text NOT NULL,
	`valid_from` integer NOT NULL,
	`valid_until` integer,
	`command_id` text NOT NULL,
	FOREIGN KEY (`node_id`) REFERENCES `nodes`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`parent_id`) REFERENCES `nodes`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`vault_id`) REFERENCES `nodes`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
INSERT INTO `__new_places`("id", "node_id", "parent_id", "vault_id", "valid_from", "valid_until", "command_id") SELECT "id", "node_id", "parent_id", "vault_id", "valid_from", "valid_until", "command_id" FROM `places`;--> statement-breakpoint
DROP TABLE `places`;--> statement-breakpoint
ALTER TABLE `__new_places` RENAME TO `places`;--> statement-breakpoint
CREATE INDEX `places_node` ON `places` (`node_id`,`valid_until`);--> statement-breakpoint
CREATE INDEX `places_parent` ON `places` (`parent_id`,`valid_until`);--> statement-breakpoint
CREATE INDEX `places_vault` ON `places` (`vault_id`,`valid_until`);--> statement-breakpoint
CREATE TABLE `__new_rounds` (
	`id` text PRIMARY KEY NOT NULL,
	`vault_id` text NOT NULL,
	`started_at` integer NOT NULL,
	`started_by` text,
	`asked` text NOT NULL,
	`asked_at` integer NOT NULL,
	`reminded_at` integer,
	`passed` text DEFAULT '[]' NOT NULL,
	`said` text DEFAULT '[]' NOT NULL,
	`finished_at` integer,
	`finished_by` text,
	`kept` text,
	FOREIGN KEY (`vault_id`) REFERENCES `nodes`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
INSERT INTO `__new_rounds`("id", "vault_id", "started_at", "started_by", "asked", "asked_at", "reminded_at", "passed", "said", "finished_at", "finished_by", "kept") SELECT "id", "vault_id", "started_at", "started_by", "asked", "asked_at", "reminded_at", "passed", "said", "finished_at", "finished_by", "kept" FROM `rounds`;--> statement-breakpoint
DROP TABLE `rounds`;--> statement-breakpoint
ALTER TABLE `__new_rounds` RENAME TO `rounds`;--> statement-breakpoint
CREATE INDEX `rounds_finished` ON `rounds` (`vault_id`,`finished_at`);--> statement-breakpoint
CREATE UNIQUE INDEX `rounds_open` ON `rounds` (`vault_id`) WHERE finished_at is null;--> statement-breakpoint
CREATE TABLE `__new_separations` (
	`id` text PRIMARY KEY NOT NULL,
	`node_id` text NOT NULL,
	`valid_from` integer NOT NULL,
	`valid_until` integer,
	`command_id` text NOT NULL,
	FOREIGN KEY (`node_id`) REFERENCES `nodes`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
INSERT INTO `__new_separations`("id", "node_id", "valid_from", "valid_until", "command_id") SELECT "id", "node_id", "valid_from", "valid_until", "command_id" FROM `separations`;--> statement-breakpoint
DROP TABLE `separations`;--> statement-breakpoint
ALTER TABLE `__new_separations` RENAME TO `separations`;--> statement-breakpoint
CREATE INDEX `separations_node` ON `separations` (`node_id`,`valid_until`);--> statement-breakpoint
CREATE TABLE `__new_sessions` (
	`id` text PRIMARY KEY NOT NULL,
	`token_hash` text NOT NULL,
	`person_id` text NOT NULL,
	`created_at` integer NOT NULL,
	`proved_at` integer NOT NULL,
	`last_seen_at` integer NOT NULL,
	`expires_at` integer NOT NULL,
	`ended_at` integer,
	`browser` text NOT NULL,
	`address` text NOT NULL,
	FOREIGN KEY (`person_id`) REFERENCES `persons`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
INSERT INTO `__new_sessions`("id", "token_hash", "person_id", "created_at", "proved_at", "last_seen_at", "expires_at", "ended_at", "browser", "address") SELECT "id", "token_hash", "person_id", "created_at", "proved_at", "last_seen_at", "expires_at", "ended_at", "browser", "address" FROM `sessions`;--> statement-breakpoint
DROP TABLE `sessions`;--> statement-breakpoint
ALTER TABLE `__new_sessions` RENAME TO `sessions`;--> statement-breakpoint
CREATE UNIQUE INDEX `sessions_token_hash_unique` ON `sessions` (`token_hash`);--> statement-breakpoint
CREATE INDEX `sessions_expiry` ON `sessions` (`expires_at`);--> statement-breakpoint
CREATE INDEX `sessions_person` ON `sessions` (`person_id`);--> statement-breakpoint
CREATE TABLE `__new_sightings` (
	`id` text PRIMARY KEY NOT NULL,
	`entry_id` text NOT NULL,
	`field` text NOT NULL,
	`fingerprint` text NOT NULL,
	`person_id` text NOT NULL,
	`at` integer NOT NULL,
	`how` text NOT NULL,
	FOREIGN KEY (`entry_id`) REFERENCES `entries`(`node_id`) ON UPDATE no action ON DELETE no action DEFERRABLE INITIALLY DEFERRED
);
--> statement-breakpoint
INSERT INTO `__new_sightings`("id", "entry_id", "field", "fingerprint", "person_id", "at", "how") SELECT "id", "entry_id", "field", "fingerprint", "person_id", "at", "how" FROM `sightings`;--> statement-breakpoint
DROP TABLE `sightings`;--> statement-breakpoint
ALTER TABLE `__new_sightings` RENAME TO `sightings`;--> statement-breakpoint
CREATE INDEX `sightings_entry` ON `sightings` (`entry_id`,`field`);--> statement-breakpoint
CREATE INDEX `sightings_person` ON `sightings` (`person_id`,`at`);--> statement-breakpoint
CREATE TABLE `__new_sign_ins` (
	`id` text PRIMARY KEY NOT NULL,
	`entry_id` text NOT NULL,
	`version_id` text NOT NULL,
	`person_id` text NOT NULL,
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
CREATE TABLE `__new_slips` (
	`id` text PRIMARY KEY NOT NULL,
	`person_id` text NOT NULL,
	`state` text NOT NULL,
	`changes` text NOT NULL,
	`revision` integer DEFAULT 0 NOT NULL,
	`why` text DEFAULT '' NOT NULL,
	`created_at` integer NOT NULL,
	`changed_at` integer NOT NULL,
	`applied_at` integer,
	`back` text,
	`ground` text DEFAULT '' NOT NULL,
	`shown_to` text DEFAULT '[]' NOT NULL,
	`waits` text DEFAULT '[]' NOT NULL,
	FOREIGN KEY (`person_id`) REFERENCES `persons`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
INSERT INTO `__new_slips`("id", "person_id", "state", "changes", "revision", "why", "created_at", "changed_at", "applied_at", "back", "ground", "shown_to", "waits") SELECT "id", "person_id", "state", "changes", "revision", "why", "created_at", "changed_at", "applied_at", "back", "ground", "shown_to", "waits" FROM `slips`;--> statement-breakpoint
DROP TABLE `slips`;--> statement-breakpoint
ALTER TABLE `__new_slips` RENAME TO `slips`;--> statement-breakpoint
CREATE UNIQUE INDEX `slips_draft` ON `slips` (`person_id`) WHERE state = 'draft';--> statement-breakpoint
CREATE INDEX `slips_applied` ON `slips` (`person_id`,`applied_at`);--> statement-breakpoint
CREATE INDEX `slips_state` ON `slips` (`state`);--> statement-breakpoint
CREATE TABLE `__new_standings` (
	`id` text PRIMARY KEY NOT NULL,
	`person_id` text NOT NULL,
	`role` text NOT NULL,
	`standing` text NOT NULL,
	`until_at` integer,
	`valid_from` integer NOT NULL,
	`valid_until` integer,
	`command_id` text NOT NULL,
	FOREIGN KEY (`person_id`) REFERENCES `persons`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
INSERT INTO `__new_standings`("id", "person_id", "role", "standing", "until_at", "valid_from", "valid_until", "command_id") SELECT "id", "person_id", "role", "standing", "until_at", "valid_from", "valid_until", "command_id" FROM `standings`;--> statement-breakpoint
DROP TABLE `standings`;--> statement-breakpoint
ALTER TABLE `__new_standings` RENAME TO `standings`;--> statement-breakpoint
CREATE INDEX `standings_end` ON `standings` (`until_at`) WHERE valid_until is null and until_at is not null;--> statement-breakpoint
CREATE INDEX `standings_role` ON `standings` (`role`,`standing`) WHERE valid_until is null;--> statement-breakpoint
CREATE INDEX `standings_person` ON `standings` (`person_id`,`valid_until`);--> statement-breakpoint
CREATE TABLE `__new_taking_parts` (
	`taking_id` text NOT NULL,
	`number` integer NOT NULL,
	`rows` text NOT NULL,
	PRIMARY KEY(`taking_id`, `number`),
	FOREIGN KEY (`taking_id`) REFERENCES `takings`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
INSERT INTO `__new_taking_parts`("taking_id", "number", "rows") SELECT "taking_id", "number", "rows" FROM `taking_parts`;--> statement-breakpoint
DROP TABLE `taking_parts`;--> statement-breakpoint
ALTER TABLE `__new_taking_parts` RENAME TO `taking_parts`;--> statement-breakpoint
CREATE TABLE `__new_ticks` (
	`entry_id` text NOT NULL,
	`fingerprint` text NOT NULL,
	`person_id` text NOT NULL,
	`at` integer NOT NULL,
	PRIMARY KEY(`entry_id`, `fingerprint`),
	FOREIGN KEY (`entry_id`) REFERENCES `entries`(`node_id`) ON UPDATE no action ON DELETE no action DEFERRABLE INITIALLY DEFERRED,
	FOREIGN KEY (`person_id`) REFERENCES `persons`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
INSERT INTO `__new_ticks`("entry_id", "fingerprint", "person_id", "at") SELECT "entry_id", "fingerprint", "person_id", "at" FROM `ticks`;--> statement-breakpoint
DROP TABLE `ticks`;--> statement-breakpoint
ALTER TABLE `__new_ticks` RENAME TO `ticks`;--> statement-breakpoint
CREATE TABLE `__new_vaults` (
	`node_id` text PRIMARY KEY NOT NULL,
	`name` text NOT NULL,
	`description` text DEFAULT '' NOT NULL,
	`aside_at` integer,
	`aside_by` text,
	`picture_id` text,
	`takers` text DEFAULT '[]' NOT NULL,
	`house_note` text DEFAULT '' NOT NULL,
	`rounds_months` integer,
	`rounds_since` integer,
	FOREIGN KEY (`node_id`) REFERENCES `nodes`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
INSERT INTO `__new_vaults`("node_id", "name", "description", "aside_at", "aside_by", "picture_id", "takers", "house_note", "rounds_months", "rounds_since") SELECT "node_id", "name", "description", "aside_at", "aside_by", "picture_id", "takers", "house_note", "rounds_months", "rounds_since" FROM `vaults`;--> statement-breakpoint
DROP TABLE `vaults`;--> statement-breakpoint
ALTER TABLE `__new_vaults` RENAME TO `vaults`;--> statement-breakpoint
CREATE TABLE `__new_yeses` (
	`id` text PRIMARY KEY NOT NULL,
	`entry_id` text NOT NULL,
	`person_id` text NOT NULL,
	`why` text NOT NULL,
	`browser` text NOT NULL,
	`address` text NOT NULL,
	`asked_at` integer NOT NULL,
	`needed` integer NOT NULL,
	`minutes` integer NOT NULL,
	`said` text DEFAULT '[]' NOT NULL,
	`until_at` integer,
	`emergency` integer DEFAULT false NOT NULL,
	`closed_at` integer,
	`closed_by` text,
	`word` text DEFAULT '' NOT NULL,
	FOREIGN KEY (`entry_id`) REFERENCES `entries`(`node_id`) ON UPDATE no action ON DELETE no action DEFERRABLE INITIALLY DEFERRED,
	FOREIGN KEY (`person_id`) REFERENCES `persons`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
INSERT INTO `__new_yeses`("id", "entry_id", "person_id", "why", "browser", "address", "asked_at", "needed", "minutes", "said", "until_at", "emergency", "closed_at", "closed_by", "word") SELECT "id", "entry_id", "person_id", "why", "browser", "address", "asked_at", "needed", "minutes", "said", "until_at", "emergency", "closed_at", "closed_by", "word" FROM `yeses`;--> statement-breakpoint
DROP TABLE `yeses`;--> statement-breakpoint
ALTER TABLE `__new_yeses` RENAME TO `yeses`;--> statement-breakpoint
CREATE INDEX `yeses_entry` ON `yeses` (`entry_id`);--> statement-breakpoint
CREATE INDEX `yeses_person` ON `yeses` (`person_id`,`entry_id`);--> statement-breakpoint
CREATE INDEX `yeses_open` ON `yeses` (`closed_at`,`until_at`);
--> statement-breakpoint
-- The rebuilt tables' triggers went with the old ones.
CREATE TRIGGER `places_insert_access` AFTER INSERT ON `places` BEGIN
  INSERT INTO access_changes (at, kind, ref) VALUES (cast(unixepoch('subsec') * 1000 as integer), 'node', new.node_id);
END;
--> statement-breakpoint
CREATE TRIGGER `places_update_access` AFTER UPDATE OF parent_id, vault_id, valid_until ON `places` BEGIN
  INSERT INTO access_changes (at, kind, ref) VALUES (cast(unixepoch('subsec') * 1000 as integer), 'node', new.node_id);
END;
--> statement-breakpoint
CREATE TRIGGER `places_delete_access` AFTER DELETE ON `places` BEGIN
  INSERT INTO access_changes (at, kind, ref) VALUES (cast(unixepoch('subsec') * 1000 as integer), 'node', old.node_id);
END;
--> statement-breakpoint
CREATE TRIGGER `separations_insert_access` AFTER INSERT ON `separations` BEGIN
  INSERT INTO access_changes (at, kind, ref) VALUES (cast(unixepoch('subsec') * 1000 as integer), 'node', new.node_id);
END;
--> statement-breakpoint
CREATE TRIGGER `separations_update_access` AFTER UPDATE OF valid_until ON `separations` BEGIN
  INSERT INTO access_changes (at, kind, ref) VALUES (cast(unixepoch('subsec') * 1000 as integer), 'node', new.node_id);
END;
--> statement-breakpoint
CREATE TRIGGER `separations_delete_access` AFTER DELETE ON `separations` BEGIN
  INSERT INTO access_changes (at, kind, ref) VALUES (cast(unixepoch('subsec') * 1000 as integer), 'node', old.node_id);
END;
--> statement-breakpoint
CREATE TRIGGER `grants_insert_access` AFTER INSERT ON `grants` BEGIN
  INSERT INTO access_changes (at, kind, ref) VALUES (cast(unixepoch('subsec') * 1000 as integer), 'node', new.node_id);
END;
--> statement-breakpoint
CREATE TRIGGER `grants_update_access` AFTER UPDATE OF level, from_at, until_at, weekly, valid_until ON `grants` BEGIN
  INSERT INTO access_changes (at, kind, ref) VALUES (cast(unixepoch('subsec') * 1000 as integer), 'node', new.node_id);
END;
--> statement-breakpoint
CREATE TRIGGER `grants_delete_access` AFTER DELETE ON `grants` BEGIN
  INSERT INTO access_changes (at, kind, ref) VALUES (cast(unixepoch('subsec') * 1000 as integer), 'node', old.node_id);
END;
--> statement-breakpoint
CREATE TRIGGER `standings_insert_access` AFTER INSERT ON `standings` BEGIN
  INSERT INTO access_changes (at, kind, ref) VALUES (cast(unixepoch('subsec') * 1000 as integer), 'person', new.person_id);
END;
--> statement-breakpoint
CREATE TRIGGER `standings_update_access` AFTER UPDATE OF role, standing, until_at, valid_until ON `standings` BEGIN
  INSERT INTO access_changes (at, kind, ref) VALUES (cast(unixepoch('subsec') * 1000 as integer), 'person', new.person_id);
END;
--> statement-breakpoint
CREATE TRIGGER `standings_delete_access` AFTER DELETE ON `standings` BEGIN
  INSERT INTO access_changes (at, kind, ref) VALUES (cast(unixepoch('subsec') * 1000 as integer), 'person', old.person_id);
END;
--> statement-breakpoint
CREATE TRIGGER `memberships_insert_access` AFTER INSERT ON `memberships` BEGIN
  INSERT INTO access_changes (at, kind, ref) VALUES (cast(unixepoch('subsec') * 1000 as integer), 'person', new.person_id);
END;
--> statement-breakpoint
CREATE TRIGGER `memberships_update_access` AFTER UPDATE OF from_at, until_at, keeper, valid_until ON `memberships` BEGIN
  INSERT INTO access_changes (at, kind, ref) VALUES (cast(unixepoch('subsec') * 1000 as integer), 'person', new.person_id);
END;
--> statement-breakpoint
CREATE TRIGGER `memberships_delete_access` AFTER DELETE ON `memberships` BEGIN
  INSERT INTO access_changes (at, kind, ref) VALUES (cast(unixepoch('subsec') * 1000 as integer), 'person', old.person_id);
END;
--> statement-breakpoint
CREATE TRIGGER `entries_version_unrated` AFTER UPDATE OF version_id ON `entries` BEGIN
  UPDATE entries SET unrated = 1 WHERE node_id = new.node_id;
END;
