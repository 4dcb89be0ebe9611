CREATE TABLE `attempts` (
	`key` text NOT NULL,
	`window` integer NOT NULL,
	`count` integer NOT NULL,
	PRIMARY KEY(`key`, `window`)
);
--> statement-breakpoint
CREATE TABLE `entries` (
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
	`binned_with` text
);
--> statement-breakpoint
CREATE INDEX `entries_site` ON `entries` (`site`);--> statement-breakpoint
CREATE TABLE `entry_versions` (
	`id` text PRIMARY KEY NOT NULL,
	`entry_id` text NOT NULL,
	`number` integer NOT NULL,
	`vault_id` text NOT NULL,
	`key_version` integer NOT NULL,
	`open` text NOT NULL,
	`sealed` blob NOT NULL,
	`created_at` integer NOT NULL,
	`created_by` text NOT NULL,
	`refused_at` integer
);
--> statement-breakpoint
CREATE UNIQUE INDEX `entry_versions_number` ON `entry_versions` (`entry_id`,`number`);--> statement-breakpoint
CREATE TABLE `failed_sign_ins` (
	`person_id` text NOT NULL,
	`minute` integer NOT NULL,
	`count` integer NOT NULL,
	PRIMARY KEY(`person_id`, `minute`)
);
--> statement-breakpoint
CREATE TABLE `fingerprints` (
	`version_id` text NOT NULL,
	`field` text NOT NULL,
	`fingerprint` text NOT NULL,
	PRIMARY KEY(`version_id`, `field`)
);
--> statement-breakpoint
CREATE INDEX `fingerprints_value` ON `fingerprints` (`fingerprint`);--> statement-breakpoint
CREATE TABLE `folders` (
	`node_id` text PRIMARY KEY NOT NULL,
	`name` text NOT NULL,
	`binned_at` integer,
	`binned_by` text,
	`binned_with` text
);
--> statement-breakpoint
CREATE TABLE `grants` (
	`id` text PRIMARY KEY NOT NULL,
	`node_id` text NOT NULL,
	`subject_kind` text NOT NULL,
	`subject_id` text NOT NULL,
	`level` text NOT NULL,
	`from_at` integer,
	`until_at` integer,
	`why` text DEFAULT '' NOT NULL,
	`given_by` text NOT NULL,
	`valid_from` integer NOT NULL,
	`valid_until` integer,
	`command_id` text NOT NULL
);
--> statement-breakpoint
CREATE INDEX `grants_node` ON `grants` (`node_id`,`valid_until`);--> statement-breakpoint
CREATE INDEX `grants_subject` ON `grants` (`subject_id`,`valid_until`);--> statement-breakpoint
CREATE INDEX `grants_edges` ON `grants` (`valid_until`,`from_at`,`until_at`);--> statement-breakpoint
CREATE TABLE `groups` (
	`id` text PRIMARY KEY NOT NULL,
	`name` text NOT NULL,
	`description` text DEFAULT '' NOT NULL,
	`created_at` integer NOT NULL
);
--> statement-breakpoint
CREATE TABLE `import_rows` (
	`entry_id` text PRIMARY KEY NOT NULL,
	`import_id` text NOT NULL,
	`version_id` text NOT NULL,
	`place_id` text NOT NULL,
	`folder` text NOT NULL
);
--> statement-breakpoint
CREATE INDEX `import_rows_import` ON `import_rows` (`import_id`);--> statement-breakpoint
CREATE TABLE `imports` (
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
	`folders_made` text NOT NULL
);
--> statement-breakpoint
CREATE TABLE `journal` (
	`seq` integer PRIMARY KEY NOT NULL,
	`at` integer NOT NULL,
	`act` text NOT NULL,
	`outcome` text NOT NULL,
	`person` text,
	`node` text,
	`vault` text,
	`subject` text,
	`details` text NOT NULL,
	`names` text NOT NULL,
	`previous` text NOT NULL,
	`hash` text NOT NULL,
	`mac` text NOT NULL
);
--> statement-breakpoint
CREATE INDEX `journal_person` ON `journal` (`person`);--> statement-breakpoint
CREATE INDEX `journal_node` ON `journal` (`node`);--> statement-breakpoint
CREATE INDEX `journal_vault` ON `journal` (`vault`);--> statement-breakpoint
CREATE TABLE `journal_names` (
	`hash` text PRIMARY KEY NOT NULL,
	`ref` text NOT NULL,
	`name` text NOT NULL,
	`salt` text NOT NULL
);
--> statement-breakpoint
CREATE UNIQUE INDEX `journal_names_ref` ON `journal_names` (`ref`,`name`);--> statement-breakpoint
CREATE TABLE `known_browsers` (
	`token_hash` text NOT NULL,
	`person_id` text NOT NULL,
	`last_used_at` integer NOT NULL,
	PRIMARY KEY(`token_hash`, `person_id`)
);
--> statement-breakpoint
CREATE TABLE `lanyards` (
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
	`ended_why` text
);
--> statement-breakpoint
CREATE UNIQUE INDEX `lanyards_token_hash_unique` ON `lanyards` (`token_hash`);--> statement-breakpoint
CREATE INDEX `lanyards_person` ON `lanyards` (`person_id`);--> statement-breakpoint
CREATE TABLE `links` (
	`id` text PRIMARY KEY NOT NULL,
	`token_hash` text NOT NULL,
	`purpose` text NOT NULL,
	`person_id` text,
	`created_at` integer NOT NULL,
	`expires_at` integer NOT NULL,
	`used_at` integer,
	`withdrawn_at` integer
);
--> statement-breakpoint
CREATE UNIQUE INDEX `links_token_hash_unique` ON `links` (`token_hash`);--> statement-breakpoint
CREATE TABLE `memberships` (
	`id` text PRIMARY KEY NOT NULL,
	`group_id` text NOT NULL,
	`person_id` text NOT NULL,
	`from_at` integer,
	`until_at` integer,
	`keeper` integer DEFAULT false NOT NULL,
	`valid_from` integer NOT NULL,
	`valid_until` integer,
	`command_id` text NOT NULL
);
--> statement-breakpoint
CREATE INDEX `memberships_person` ON `memberships` (`person_id`,`valid_until`);--> statement-breakpoint
CREATE UNIQUE INDEX `memberships_current` ON `memberships` (`group_id`,`person_id`) WHERE valid_until is null;--> statement-breakpoint
CREATE TABLE `met` (
	`person_id` text NOT NULL,
	`entry_id` text NOT NULL,
	`at` integer NOT NULL,
	PRIMARY KEY(`person_id`, `entry_id`)
);
--> statement-breakpoint
CREATE TABLE `never_kept` (
	`person_id` text NOT NULL,
	`site` text NOT NULL,
	`at` integer NOT NULL,
	PRIMARY KEY(`person_id`, `site`)
);
--> statement-breakpoint
CREATE TABLE `nodes` (
	`id` text PRIMARY KEY NOT NULL,
	`type` text NOT NULL,
	`created_at` integer NOT NULL,
	`created_by` text NOT NULL
);
--> statement-breakpoint
CREATE TABLE `notices` (
	`id` text PRIMARY KEY NOT NULL,
	`person_id` text NOT NULL,
	`at` integer NOT NULL,
	`text` text NOT NULL,
	`node_id` text,
	`put_away_at` integer
);
--> statement-breakpoint
CREATE INDEX `notices_person` ON `notices` (`person_id`,`put_away_at`);--> statement-breakpoint
CREATE TABLE `organisation` (
	`id` text PRIMARY KEY NOT NULL,
	`name` text NOT NULL,
	`time_zone` text NOT NULL,
	`created_at` integer NOT NULL
);
--> statement-breakpoint
CREATE TABLE `outbox` (
	`seq` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`at` integer NOT NULL,
	`topics` text NOT NULL
);
--> statement-breakpoint
CREATE TABLE `pairings` (
	`id` text PRIMARY KEY NOT NULL,
	`device_hash` text NOT NULL,
	`user_code` text NOT NULL,
	`thumbprint` text NOT NULL,
	`browser` text NOT NULL,
	`version` text NOT NULL,
	`created_at` integer NOT NULL,
	`expires_at` integer NOT NULL,
	`confirmed_by` text,
	`confirmed_at` integer,
	`taken_at` integer,
	`stopped_at` integer
);
--> statement-breakpoint
CREATE UNIQUE INDEX `pairings_device_hash_unique` ON `pairings` (`device_hash`);--> statement-breakpoint
CREATE TABLE `persons` (
	`id` text PRIMARY KEY NOT NULL,
	`mail` text NOT NULL,
	`name` text NOT NULL,
	`password_hash` text,
	`created_at` integer NOT NULL,
	`invited_by` text
);
--> statement-breakpoint
CREATE UNIQUE INDEX `persons_mail_unique` ON `persons` (`mail`);--> statement-breakpoint
CREATE TABLE `pins` (
	`person_id` text NOT NULL,
	`entry_id` text NOT NULL,
	`at` integer NOT NULL,
	PRIMARY KEY(`person_id`, `entry_id`)
);
--> statement-breakpoint
CREATE TABLE `places` (
	`id` text PRIMARY KEY NOT NULL,
	`node_id` text NOT NULL,
	`parent_id` text,
	`vault_id` text NOT NULL,
	`valid_from` integer NOT NULL,
	`valid_until` integer,
	`command_id` text NOT NULL
);
--> statement-breakpoint
CREATE INDEX `places_node` ON `places` (`node_id`,`valid_until`);--> statement-breakpoint
CREATE INDEX `places_parent` ON `places` (`parent_id`,`valid_until`);--> statement-breakpoint
CREATE INDEX `places_vault` ON `places` (`vault_id`,`valid_until`);--> statement-breakpoint
CREATE TABLE `proofs` (
	`jti` text PRIMARY KEY NOT NULL,
	`expires_at` integer NOT NULL
);
--> statement-breakpoint
CREATE TABLE `separations` (
	`id` text PRIMARY KEY NOT NULL,
	`node_id` text NOT NULL,
	`valid_from` integer NOT NULL,
	`valid_until` integer,
	`command_id` text NOT NULL
);
--> statement-breakpoint
CREATE INDEX `separations_node` ON `separations` (`node_id`,`valid_until`);--> statement-breakpoint
CREATE TABLE `sessions` (
	`id` text PRIMARY KEY NOT NULL,
	`token_hash` text NOT NULL,
	`person_id` text NOT NULL,
	`created_at` integer NOT NULL,
	`proved_at` integer NOT NULL,
	`last_seen_at` integer NOT NULL,
	`expires_at` integer NOT NULL,
	`ended_at` integer,
	`browser` text NOT NULL,
	`address` text NOT NULL
);
--> statement-breakpoint
CREATE UNIQUE INDEX `sessions_token_hash_unique` ON `sessions` (`token_hash`);--> statement-breakpoint
CREATE INDEX `sessions_person` ON `sessions` (`person_id`);--> statement-breakpoint
CREATE TABLE `sightings` (
	`id` text PRIMARY KEY NOT NULL,
	`entry_id` text NOT NULL,
	`field` text NOT NULL,
	`fingerprint` text NOT NULL,
	`person_id` text NOT NULL,
	`at` integer NOT NULL,
	`how` text NOT NULL
);
--> statement-breakpoint
CREATE INDEX `sightings_entry` ON `sightings` (`entry_id`,`field`);--> statement-breakpoint
CREATE TABLE `sign_ins` (
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
	`signed_out_at` integer
);
--> statement-breakpoint
CREATE INDEX `sign_ins_entry` ON `sign_ins` (`entry_id`,`begun_at`);--> statement-breakpoint
CREATE INDEX `sign_ins_person` ON `sign_ins` (`person_id`,`begun_at`);--> statement-breakpoint
CREATE INDEX `sign_ins_open` ON `sign_ins` (`ended_at`,`queue_key`);--> statement-breakpoint
CREATE TABLE `standings` (
	`id` text PRIMARY KEY NOT NULL,
	`person_id` text NOT NULL,
	`role` text NOT NULL,
	`standing` text NOT NULL,
	`valid_from` integer NOT NULL,
	`valid_until` integer,
	`command_id` text NOT NULL
);
--> statement-breakpoint
CREATE INDEX `standings_person` ON `standings` (`person_id`,`valid_until`);--> statement-breakpoint
CREATE TABLE `used_codes` (
	`fingerprint` text NOT NULL,
	`step` integer NOT NULL,
	PRIMARY KEY(`fingerprint`, `step`)
);
--> statement-breakpoint
CREATE TABLE `vault_keys` (
	`vault_id` text NOT NULL,
	`version` integer NOT NULL,
	`wrapped` blob NOT NULL,
	`created_at` integer NOT NULL,
	PRIMARY KEY(`vault_id`, `version`)
);
--> statement-breakpoint
CREATE TABLE `vaults` (
	`node_id` text PRIMARY KEY NOT NULL,
	`name` text NOT NULL,
	`description` text DEFAULT '' NOT NULL
);
