CREATE TABLE `checks` (
	`node_id` text NOT NULL,
	`part` text NOT NULL,
	`due_at` integer NOT NULL,
	PRIMARY KEY(`node_id`, `part`)
);
--> statement-breakpoint
CREATE INDEX `checks_due` ON `checks` (`due_at`);--> statement-breakpoint
CREATE TABLE `findings` (
	`id` text PRIMARY KEY NOT NULL,
	`node_id` text NOT NULL,
	`vault_id` text NOT NULL,
	`kind` text NOT NULL,
	`key` text DEFAULT '' NOT NULL,
	`detail` text NOT NULL,
	`since` integer NOT NULL,
	`found_at` integer NOT NULL,
	`ended_at` integer,
	`put_off_until` integer,
	`put_off_why` text DEFAULT '' NOT NULL,
	`put_off_by` text,
	FOREIGN KEY (`node_id`) REFERENCES `nodes`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `findings_open` ON `findings` (`node_id`,`kind`,`key`) WHERE ended_at is null;--> statement-breakpoint
CREATE INDEX `findings_open_vault` ON `findings` (`vault_id`,`kind`) WHERE ended_at is null;--> statement-breakpoint
CREATE INDEX `findings_vault` ON `findings` (`vault_id`,`ended_at`);--> statement-breakpoint
CREATE INDEX `findings_node` ON `findings` (`node_id`);--> statement-breakpoint
CREATE INDEX `findings_ended` ON `findings` (`ended_at`) WHERE ended_at is not null;--> statement-breakpoint
CREATE TABLE `unchecked` (
	`seq` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`kind` text NOT NULL,
	`ref` text NOT NULL
);
--> statement-breakpoint
CREATE UNIQUE INDEX `unchecked_ref` ON `unchecked` (`kind`,`ref`);--> statement-breakpoint
CREATE TABLE `leaks` (
	`version_id` text PRIMARY KEY NOT NULL,
	`times` integer DEFAULT 0 NOT NULL,
	`looked_up_at` integer DEFAULT 0 NOT NULL
);
--> statement-breakpoint
CREATE INDEX `leaks_looked_up` ON `leaks` (`looked_up_at`);
--> statement-breakpoint
CREATE TRIGGER `entries_insert_unchecked` AFTER INSERT ON `entries` BEGIN
  DELETE FROM unchecked WHERE kind = 'entry' AND ref = new.node_id;
  INSERT INTO unchecked (kind, ref) VALUES ('entry', new.node_id);
END;
--> statement-breakpoint
CREATE TRIGGER `entries_update_unchecked` AFTER UPDATE OF version_id, kind, fields, extras, sign_in_page, steps, plain_http, sign_in_engine, binned_at, aside_at, codes_reach, created_at ON `entries` BEGIN
  DELETE FROM unchecked WHERE kind = 'entry' AND ref = new.node_id;
  INSERT INTO unchecked (kind, ref) VALUES ('entry', new.node_id);
END;
--> statement-breakpoint
CREATE TRIGGER `entries_marks_unchecked` AFTER UPDATE OF version_id, binned_at, aside_at ON `entries` BEGIN
  DELETE FROM unchecked WHERE kind = 'mark' AND ref IN (SELECT fingerprint FROM fingerprints WHERE version_id IN (old.version_id));
  INSERT INTO unchecked (kind, ref) SELECT DISTINCT 'mark', fingerprint FROM fingerprints WHERE version_id IN (old.version_id);
END;
--> statement-breakpoint
CREATE TRIGGER `fingerprints_delete_unchecked` AFTER DELETE ON `fingerprints` BEGIN
  DELETE FROM unchecked WHERE kind = 'mark' AND ref = old.fingerprint;
  INSERT INTO unchecked (kind, ref) VALUES ('mark', old.fingerprint);
END;
--> statement-breakpoint
CREATE TRIGGER `conditions_insert_unchecked` AFTER INSERT ON `conditions` BEGIN
  DELETE FROM unchecked WHERE kind = 'entry' AND ref = (SELECT entry_id FROM entry_versions WHERE id = new.version_id);
  INSERT INTO unchecked (kind, ref) SELECT 'entry', entry_id FROM entry_versions WHERE id = new.version_id;
END;
--> statement-breakpoint
CREATE TRIGGER `leaks_update_unchecked` AFTER UPDATE OF times ON `leaks` WHEN old.times <> new.times BEGIN
  DELETE FROM unchecked WHERE kind = 'entry' AND ref = (SELECT entry_id FROM entry_versions WHERE id = new.version_id);
  INSERT INTO unchecked (kind, ref) SELECT 'entry', entry_id FROM entry_versions WHERE id = new.version_id;
END;
--> statement-breakpoint
CREATE TRIGGER `entries_insert_leaks` AFTER INSERT ON `entries` BEGIN
  INSERT INTO leaks (version_id) VALUES (new.version_id);
END;
--> statement-breakpoint
CREATE TRIGGER `entries_version_leaks` AFTER UPDATE OF version_id ON `entries` WHEN old.version_id <> new.version_id BEGIN
  DELETE FROM leaks WHERE version_id IN (old.version_id, new.version_id);
  INSERT INTO leaks (version_id) VALUES (new.version_id);
END;
--> statement-breakpoint
CREATE TRIGGER `entries_delete_leaks` AFTER DELETE ON `entries` BEGIN
  DELETE FROM leaks WHERE version_id = old.version_id;
END;
--> statement-breakpoint
CREATE TRIGGER `entry_versions_refused_unchecked` AFTER UPDATE OF refused_at ON `entry_versions` BEGIN
  DELETE FROM unchecked WHERE kind = 'entry' AND ref = new.entry_id;
  INSERT INTO unchecked (kind, ref) VALUES ('entry', new.entry_id);
END;
--> statement-breakpoint
CREATE TRIGGER `sightings_insert_unchecked` AFTER INSERT ON `sightings` BEGIN
  DELETE FROM unchecked WHERE kind = 'use' AND ref = new.entry_id;
  INSERT INTO unchecked (kind, ref) VALUES ('use', new.entry_id);
END;
--> statement-breakpoint
CREATE TRIGGER `sign_ins_end_unchecked` AFTER UPDATE OF ended_at ON `sign_ins` BEGIN
  DELETE FROM unchecked WHERE kind = 'use' AND ref = new.entry_id;
  INSERT INTO unchecked (kind, ref) VALUES ('use', new.entry_id);
END;
--> statement-breakpoint
CREATE TRIGGER `access_person_unchecked` AFTER INSERT ON `access_changes` WHEN new.kind = 'person' BEGIN
  DELETE FROM unchecked WHERE kind = 'person' AND ref = new.ref;
  INSERT INTO unchecked (kind, ref) VALUES ('person', new.ref);
END;
--> statement-breakpoint
CREATE TRIGGER `access_node_unchecked` AFTER INSERT ON `access_changes`
WHEN new.kind = 'node' AND (
  EXISTS (SELECT 1 FROM nodes WHERE id = new.ref AND type <> 'entry')
  OR EXISTS (SELECT 1 FROM grants WHERE node_id = new.ref)
  OR EXISTS (SELECT 1 FROM separations WHERE node_id = new.ref)
  OR EXISTS (SELECT 1 FROM places WHERE node_id = new.ref AND valid_until IS NOT NULL)
) BEGIN
  DELETE FROM unchecked WHERE kind = 'access' AND ref = new.ref;
  INSERT INTO unchecked (kind, ref) VALUES ('access', new.ref);
END;
--> statement-breakpoint
INSERT INTO unchecked (kind, ref) SELECT 'entry', node_id FROM entries;
--> statement-breakpoint
INSERT INTO unchecked (kind, ref) SELECT 'access', id FROM nodes WHERE type = 'vault' UNION SELECT 'access', node_id FROM grants UNION SELECT 'access', node_id FROM separations;
--> statement-breakpoint
INSERT INTO leaks (version_id) SELECT version_id FROM entries;
