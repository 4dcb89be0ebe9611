-- The words of reasons, for looking through the Journal: without the words themselves, which stand in its lines.
CREATE VIRTUAL TABLE `journal_words` USING fts5(`why`, content='', tokenize="unicode61 remove_diacritics 2");
--> statement-breakpoint
INSERT INTO `journal_words`(rowid, `why`)
	SELECT `seq`, json_extract(`details`, '$.why') FROM `journal` WHERE `details` LIKE '%"why":"_%';
--> statement-breakpoint
CREATE TRIGGER `journal_words_written` AFTER INSERT ON `journal` WHEN NEW.`details` LIKE '%"why":"_%' BEGIN
	INSERT INTO `journal_words`(rowid, `why`) VALUES (NEW.`seq`, json_extract(NEW.`details`, '$.why'));
END;
