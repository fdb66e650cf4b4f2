-- Records that are one document: settings become the first of them. Tables of other such
-- kinds are made when the database is opened; the journal takes any kind.
ALTER TABLE settings RENAME COLUMN value TO document;
UPDATE settings SET document = json_object('key', slug, 'value', document);
ALTER TABLE journal RENAME TO old_journal;
DROP INDEX journal_by_group;
DROP INDEX journal_by_who;
DROP INDEX journal_by_undoes;
CREATE TABLE journal (
    id INTEGER NOT NULL PRIMARY KEY AUTOINCREMENT,
    at INTEGER NOT NULL,
    who TEXT NOT NULL,
    change_group INTEGER NOT NULL,
    label TEXT NOT NULL,
    undoes INTEGER,
    kind TEXT NOT NULL CHECK (length(kind) > 0),
    record INTEGER NOT NULL,
    revision INTEGER NOT NULL CHECK (revision >= 1),
    before TEXT CHECK (before IS NULL OR json_valid(before)),
    after TEXT CHECK (after IS NULL OR json_valid(after)),
    UNIQUE (kind, record, revision)
) STRICT;
CREATE INDEX journal_by_group ON journal (change_group);
CREATE INDEX journal_by_who ON journal (who, change_group, undoes);
CREATE INDEX journal_by_undoes ON journal (undoes) WHERE undoes IS NOT NULL;
INSERT INTO journal SELECT * FROM old_journal;
DROP TABLE old_journal;
