-- What a hull offers for stowing, how it may be changed and set up, and the
-- shelf of things to carry. Each row's document holds everything; what the
-- database itself watches over is generated from it. Lengths in metres, masses
-- in kilograms.
CREATE TABLE zones (
    id INTEGER NOT NULL PRIMARY KEY,
    hull_id INTEGER NOT NULL REFERENCES hulls (id) ON DELETE CASCADE ON UPDATE CASCADE,
    document TEXT NOT NULL CHECK (json_valid(document)),
    name TEXT NOT NULL GENERATED ALWAYS AS (json_extract(document, '$.name')) STORED
        CHECK (length(name) > 0),
    kind TEXT NOT NULL GENERATED ALWAYS AS (json_extract(document, '$.kind')) STORED,
    from_m REAL NOT NULL GENERATED ALWAYS AS (json_extract(document, '$.from_m')) STORED,
    to_m REAL NOT NULL GENERATED ALWAYS AS (json_extract(document, '$.to_m')) STORED
        CHECK (to_m > from_m),
    width_m REAL NOT NULL GENERATED ALWAYS AS (json_extract(document, '$.width_m')) STORED
        CHECK (width_m > 0),
    UNIQUE (hull_id, name)
) STRICT;

CREATE TABLE fittings (
    id INTEGER NOT NULL PRIMARY KEY,
    hull_id INTEGER NOT NULL REFERENCES hulls (id) ON DELETE CASCADE ON UPDATE CASCADE,
    document TEXT NOT NULL CHECK (json_valid(document)),
    name TEXT NOT NULL GENERATED ALWAYS AS (json_extract(document, '$.name')) STORED
        CHECK (length(name) > 0),
    x_m REAL NOT NULL GENERATED ALWAYS AS (json_extract(document, '$.x_m')) STORED,
    UNIQUE (hull_id, name)
) STRICT;

CREATE TABLE modifications (
    id INTEGER NOT NULL PRIMARY KEY,
    hull_id INTEGER NOT NULL REFERENCES hulls (id) ON DELETE CASCADE ON UPDATE CASCADE,
    document TEXT NOT NULL CHECK (json_valid(document)),
    name TEXT NOT NULL GENERATED ALWAYS AS (json_extract(document, '$.name')) STORED
        CHECK (length(name) > 0),
    progress TEXT NOT NULL GENERATED ALWAYS AS (json_extract(document, '$.progress')) STORED
        CHECK (progress IN ('planned', 'done')),
    holes INTEGER NOT NULL GENERATED ALWAYS AS (json_extract(document, '$.holes')) STORED
        CHECK (holes >= 0),
    UNIQUE (hull_id, name)
) STRICT;

CREATE TABLE configurations (
    id INTEGER NOT NULL PRIMARY KEY,
    hull_id INTEGER NOT NULL REFERENCES hulls (id) ON DELETE CASCADE ON UPDATE CASCADE,
    document TEXT NOT NULL CHECK (json_valid(document)),
    name TEXT NOT NULL GENERATED ALWAYS AS (json_extract(document, '$.name')) STORED
        CHECK (length(name) > 0),
    UNIQUE (hull_id, name)
) STRICT;

CREATE TABLE gear (
    id INTEGER NOT NULL PRIMARY KEY,
    slug TEXT NOT NULL CHECK (length(slug) BETWEEN 1 AND 64),
    revision INTEGER NOT NULL DEFAULT 1 CHECK (revision >= 1),
    updated_at INTEGER NOT NULL DEFAULT 0,
    deleted_at INTEGER,
    document TEXT NOT NULL CHECK (json_valid(document)),
    name TEXT NOT NULL GENERATED ALWAYS AS (json_extract(document, '$.name')) STORED
        CHECK (length(name) > 0),
    category TEXT NOT NULL GENERATED ALWAYS AS (json_extract(document, '$.category')) STORED,
    dry_mass REAL NOT NULL GENERATED ALWAYS AS (json_extract(document, '$.dry_mass_kg')) STORED
        CHECK (dry_mass >= 0),
    loaded_mass REAL NOT NULL GENERATED ALWAYS AS (json_extract(document, '$.loaded_mass_kg')) STORED
        CHECK (loaded_mass >= dry_mass)
) STRICT;
CREATE UNIQUE INDEX gear_by_slug ON gear (slug) WHERE deleted_at IS NULL;

-- A line is a thing on the shelf, or free text. What a rig holds cannot be
-- destroyed under it.
ALTER TABLE rig_lines ADD COLUMN gear_id INTEGER
    REFERENCES gear (id) ON DELETE RESTRICT ON UPDATE CASCADE;
CREATE INDEX rig_lines_by_gear ON rig_lines (gear_id);

-- The journal takes the shelf too.
ALTER TABLE journal RENAME TO old_journal;
DROP INDEX journal_by_group;
CREATE TABLE journal (
    id INTEGER NOT NULL PRIMARY KEY AUTOINCREMENT,
    at INTEGER NOT NULL,
    who TEXT NOT NULL,
    change_group INTEGER NOT NULL,
    label TEXT NOT NULL,
    undoes INTEGER,
    kind TEXT NOT NULL CHECK (kind IN ('hull', 'water', 'gear', 'rig', 'brief', 'setting')),
    record INTEGER NOT NULL,
    revision INTEGER NOT NULL CHECK (revision >= 1),
    before TEXT CHECK (before IS NULL OR json_valid(before)),
    after TEXT CHECK (after IS NULL OR json_valid(after)),
    UNIQUE (kind, record, revision)
) STRICT;
CREATE INDEX journal_by_group ON journal (change_group);
INSERT INTO journal SELECT * FROM old_journal;
DROP TABLE old_journal;
