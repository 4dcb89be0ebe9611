CREATE TABLE `access_changes` (
	`seq` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`at` integer NOT NULL,
	`kind` text NOT NULL,
	`ref` text NOT NULL
);
--> statement-breakpoint
CREATE INDEX `access_changes_at` ON `access_changes` (`at`);--> statement-breakpoint
ALTER TABLE `entries` ADD `unrated` integer DEFAULT true NOT NULL;--> statement-breakpoint
CREATE INDEX `entries_binned_with` ON `entries` (`binned_with`) WHERE binned_with is not null;--> statement-breakpoint
CREATE INDEX `entries_unrated` ON `entries` (`node_id`) WHERE unrated = 1;--> statement-breakpoint
CREATE INDEX `entries_version` ON `entries` (`version_id`);--> statement-breakpoint
CREATE INDEX `entries_kind` ON `entries` (`kind`);--> statement-breakpoint
CREATE INDEX `entries_picture` ON `entries` (`picture_id`) WHERE picture_id is not null;--> statement-breakpoint
CREATE INDEX `entries_listed` ON `entries` (`listed`) WHERE listed = 1;--> statement-breakpoint
CREATE INDEX `entries_binned` ON `entries` (`binned_at`) WHERE binned_at is not null;--> statement-breakpoint
CREATE INDEX `entries_aside` ON `entries` (`aside_with`) WHERE aside_with is not null;--> statement-breakpoint
CREATE INDEX `acceptances_vault` ON `acceptances` (`vault_id`);--> statement-breakpoint
CREATE INDEX `attachments_begun` ON `attachments` (`created_at`) WHERE complete_at is null;--> statement-breakpoint
CREATE INDEX `attempts_window` ON `attempts` (`window`);--> statement-breakpoint
CREATE INDEX `entry_versions_kind` ON `entry_versions` (json_extract(`open`, '$.kind'));--> statement-breakpoint
CREATE INDEX `failed_sign_ins_minute` ON `failed_sign_ins` (`minute`);--> statement-breakpoint
CREATE INDEX `folders_binned` ON `folders` (`binned_at`) WHERE binned_at is not null;--> statement-breakpoint
CREATE INDEX `folders_binned_with` ON `folders` (`binned_with`) WHERE binned_with is not null;--> statement-breakpoint
CREATE INDEX `grants_end` ON `grants` (`until_at`) WHERE valid_until is null and until_at is not null;--> statement-breakpoint
CREATE INDEX `grants_from` ON `grants` (`from_at`) WHERE valid_until is null and from_at is not null;--> statement-breakpoint
CREATE INDEX `grants_giver` ON `grants` (`given_by`,`valid_until`,`until_at`);--> statement-breakpoint
CREATE INDEX `handovers_live` ON `handovers` (`expires_at`) WHERE sealed is not null;--> statement-breakpoint
CREATE INDEX `import_updates_entry` ON `import_updates` (`entry_id`);--> statement-breakpoint
CREATE INDEX `imports_open` ON `imports` (`process`) WHERE published_at is null and cancelled_at is null;--> statement-breakpoint
CREATE INDEX `imports_cancelled` ON `imports` (`id`) WHERE cancelled_at is not null;--> statement-breakpoint
CREATE INDEX `journal_subject` ON `journal` (`subject`);--> statement-breakpoint
CREATE INDEX `journal_act` ON `journal` (`act`);--> statement-breakpoint
CREATE INDEX `known_browsers_used` ON `known_browsers` (`last_used_at`);--> statement-breakpoint
CREATE INDEX `lanyards_ended` ON `lanyards` (`ended_at`) WHERE ended_at is not null;--> statement-breakpoint
CREATE INDEX `lanyards_expiry` ON `lanyards` (`expires_at`);--> statement-breakpoint
CREATE INDEX `ledger_views_vault` ON `ledger_views` (`vault_id`);--> statement-breakpoint
CREATE INDEX `links_open` ON `links` (`person_id`,`purpose`) WHERE used_at is null and withdrawn_at is null;--> statement-breakpoint
CREATE INDEX `links_expiry` ON `links` (`expires_at`);--> statement-breakpoint
CREATE INDEX `mails_made` ON `mails` (`made_at`);--> statement-breakpoint
CREATE INDEX `mappings_person` ON `mappings` (`person_id`);--> statement-breakpoint
CREATE INDEX `memberships_from` ON `memberships` (`from_at`) WHERE valid_until is null and from_at is not null;--> statement-breakpoint
CREATE INDEX `memberships_end` ON `memberships` (`until_at`) WHERE valid_until is null and until_at is not null;--> statement-breakpoint
CREATE INDEX `met_entry` ON `met` (`entry_id`);--> statement-breakpoint
CREATE INDEX `notices_at` ON `notices` (`at`);--> statement-breakpoint
CREATE INDEX `notices_put_away` ON `notices` (`put_away_at`) WHERE put_away_at is not null;--> statement-breakpoint
CREATE INDEX `pairings_code` ON `pairings` (`user_code`);--> statement-breakpoint
CREATE INDEX `pairings_expiry` ON `pairings` (`expires_at`);--> statement-breakpoint
CREATE INDEX `pins_entry` ON `pins` (`entry_id`);--> statement-breakpoint
CREATE INDEX `proofs_expiry` ON `proofs` (`expires_at`);--> statement-breakpoint
CREATE INDEX `rounds_finished` ON `rounds` (`vault_id`,`finished_at`);--> statement-breakpoint
CREATE INDEX `sessions_expiry` ON `sessions` (`expires_at`);--> statement-breakpoint
CREATE INDEX `sightings_person` ON `sightings` (`person_id`,`at`);--> statement-breakpoint
CREATE INDEX `sign_ins_kept` ON `sign_ins` (`id`) WHERE jar is not null;--> statement-breakpoint
CREATE INDEX `sign_ins_kept_person` ON `sign_ins` (`person_id`) WHERE jar is not null;--> statement-breakpoint
CREATE INDEX `sign_ins_kept_entry` ON `sign_ins` (`entry_id`) WHERE jar is not null;--> statement-breakpoint
CREATE INDEX `slips_state` ON `slips` (`state`);--> statement-breakpoint
CREATE INDEX `standings_end` ON `standings` (`until_at`) WHERE valid_until is null and until_at is not null;--> statement-breakpoint
CREATE INDEX `standings_role` ON `standings` (`role`,`standing`) WHERE valid_until is null;--> statement-breakpoint
CREATE INDEX `takings_at` ON `takings` (`at`);--> statement-breakpoint
CREATE INDEX `used_codes_step` ON `used_codes` (`step`);--> statement-breakpoint
CREATE INDEX `yeses_entry` ON `yeses` (`entry_id`);
--> statement-breakpoint
UPDATE `entries` SET `unrated` = 0 WHERE EXISTS (SELECT 1 FROM `conditions` c WHERE c.`version_id` = `entries`.`version_id`);
--> statement-breakpoint
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
--> statement-breakpoint
CREATE TRIGGER `persons_update_access` AFTER UPDATE OF name ON `persons` BEGIN
  INSERT INTO access_changes (at, kind, ref) VALUES (cast(unixepoch('subsec') * 1000 as integer), 'person', new.id);
END;
