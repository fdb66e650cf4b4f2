-- Second edition: integer ids, slugs that may be renamed, revisions, a trash
-- and a journal. Lengths in metres, masses in kilograms, shares 0-1, times in
-- milliseconds since 1970, days as ISO 8601 text.
ALTER TABLE hulls RENAME TO old_hulls;
ALTER TABLE readings RENAME TO old_readings;
ALTER TABLE evidence RENAME TO old_evidence;
ALTER TABLE waters RENAME TO old_waters;
ALTER TABLE rigs RENAME TO old_rigs;
ALTER TABLE rig_lines RENAME TO old_rig_lines;
ALTER TABLE briefs RENAME TO old_briefs;
ALTER TABLE settings RENAME TO old_settings;
DROP INDEX readings_by_hull;
DROP INDEX evidence_by_hull;
DROP INDEX rig_lines_by_rig;

CREATE TABLE hulls (
    id INTEGER NOT NULL PRIMARY KEY,
    slug TEXT NOT NULL CHECK (length(slug) BETWEEN 1 AND 64),
    revision INTEGER NOT NULL DEFAULT 1 CHECK (revision >= 1),
    updated_at INTEGER NOT NULL DEFAULT 0,
    deleted_at INTEGER,
    maker TEXT NOT NULL,
    model TEXT NOT NULL,
    year INTEGER CHECK (year BETWEEN 1800 AND 2200),
    construction TEXT NOT NULL CHECK (construction IN ('sit-on-top', 'sit-inside', 'board')),
    bottom TEXT,
    propulsion TEXT NOT NULL CHECK (propulsion IN ('paddle', 'rotary-pedal', 'fin-pedal', 'motor')),
    drive_lifts INTEGER NOT NULL CHECK (drive_lifts IN (0, 1)),
    tracks_straight INTEGER NOT NULL CHECK (tracks_straight IN (0, 1)),
    seats INTEGER NOT NULL CHECK (seats BETWEEN 1 AND 4),
    fitted_includes TEXT NOT NULL,
    capacity_basis TEXT NOT NULL,
    origin TEXT NOT NULL DEFAULT 'maker' CHECK (origin IN ('maker', 'home-made')),
    notes TEXT NOT NULL,
    -- Columns of the file Galvet does not know, as a JSON object.
    extra TEXT NOT NULL CHECK (json_valid(extra))
) STRICT;
-- A slug names one living record; what lies in the trash keeps its own.
CREATE UNIQUE INDEX hulls_by_slug ON hulls (slug) WHERE deleted_at IS NULL;

-- One row for each reading of a figure: the most trusted newest is used.
CREATE TABLE readings (
    id INTEGER NOT NULL PRIMARY KEY,
    hull_id INTEGER NOT NULL REFERENCES hulls (id) ON DELETE CASCADE ON UPDATE CASCADE,
    measure TEXT NOT NULL,
    value REAL NOT NULL,
    source TEXT NOT NULL,
    taken TEXT NOT NULL DEFAULT '',
    who TEXT NOT NULL DEFAULT '',
    note TEXT NOT NULL DEFAULT ''
) STRICT;
CREATE INDEX readings_by_hull ON readings (hull_id);

-- What was measured afloat, with the circumstances it was measured in.
CREATE TABLE evidence (
    id INTEGER NOT NULL PRIMARY KEY,
    hull_id INTEGER NOT NULL REFERENCES hulls (id) ON DELETE CASCADE ON UPDATE CASCADE,
    aboard_mass REAL NOT NULL CHECK (aboard_mass >= 0),
    aboard_place REAL NOT NULL CHECK (aboard_place BETWEEN 0 AND 1),
    aboard_height REAL NOT NULL,
    density REAL NOT NULL CHECK (density BETWEEN 990 AND 1035),
    scuppers TEXT NOT NULL,
    taken TEXT NOT NULL DEFAULT '',
    kind TEXT NOT NULL CHECK (kind IN ('floor-above-water', 'gunwale-above-water', 'waterline', 'tilt')),
    reading TEXT NOT NULL CHECK (json_valid(reading))
) STRICT;
CREATE INDEX evidence_by_hull ON evidence (hull_id);

-- Sections measured station by station, bow to stern.
CREATE TABLE stations (
    id INTEGER NOT NULL PRIMARY KEY,
    hull_id INTEGER NOT NULL REFERENCES hulls (id) ON DELETE CASCADE ON UPDATE CASCADE,
    x REAL NOT NULL,
    -- [[half-breadth, height], …] from the bottom outward, up, and back in.
    points TEXT NOT NULL CHECK (json_valid(points))
) STRICT;
CREATE INDEX stations_by_hull ON stations (hull_id);

CREATE TABLE waters (
    id INTEGER NOT NULL PRIMARY KEY,
    slug TEXT NOT NULL CHECK (length(slug) BETWEEN 1 AND 64),
    revision INTEGER NOT NULL DEFAULT 1 CHECK (revision >= 1),
    updated_at INTEGER NOT NULL DEFAULT 0,
    deleted_at INTEGER,
    name TEXT NOT NULL,
    density REAL NOT NULL CHECK (density BETWEEN 990 AND 1035),
    freeboard REAL NOT NULL CHECK (freeboard BETWEEN 0 AND 0.5),
    floor_clearance REAL NOT NULL CHECK (floor_clearance BETWEEN 0 AND 0.2),
    working_share REAL NOT NULL CHECK (working_share BETWEEN 0.3 AND 1),
    least_depth REAL NOT NULL CHECK (least_depth BETWEEN 0.05 AND 50),
    conditions TEXT NOT NULL,
    standing TEXT NOT NULL CHECK (standing IN ('no', 'brief', 'wanted', 'essential')),
    capacity_weight REAL NOT NULL CHECK (capacity_weight BETWEEN 0 AND 1),
    reserve_share REAL NOT NULL CHECK (reserve_share BETWEEN 0 AND 1),
    must_drain INTEGER NOT NULL CHECK (must_drain IN (0, 1)),
    plugs_allowed INTEGER NOT NULL CHECK (plugs_allowed IN (0, 1)),
    cautions TEXT NOT NULL CHECK (json_valid(cautions))
) STRICT;
CREATE UNIQUE INDEX waters_by_slug ON waters (slug) WHERE deleted_at IS NULL;

CREATE TABLE rigs (
    id INTEGER NOT NULL PRIMARY KEY,
    slug TEXT NOT NULL CHECK (length(slug) BETWEEN 1 AND 64),
    revision INTEGER NOT NULL DEFAULT 1 CHECK (revision >= 1),
    updated_at INTEGER NOT NULL DEFAULT 0,
    deleted_at INTEGER,
    name TEXT NOT NULL
) STRICT;
CREATE UNIQUE INDEX rigs_by_slug ON rigs (slug) WHERE deleted_at IS NULL;

CREATE TABLE rig_lines (
    id INTEGER NOT NULL PRIMARY KEY,
    rig_id INTEGER NOT NULL REFERENCES rigs (id) ON DELETE CASCADE ON UPDATE CASCADE,
    item TEXT NOT NULL,
    count INTEGER NOT NULL CHECK (count BETWEEN 1 AND 50),
    dry_mass REAL NOT NULL CHECK (dry_mass >= 0),
    loaded_mass REAL NOT NULL CHECK (loaded_mass >= dry_mass),
    place REAL NOT NULL CHECK (place BETWEEN 0 AND 1),
    height REAL NOT NULL,
    offset_y REAL NOT NULL,
    energy_wh REAL NOT NULL CHECK (energy_wh >= 0)
) STRICT;
CREATE INDEX rig_lines_by_rig ON rig_lines (rig_id);

-- A saved question as versioned JSON. The rig and the water it names are held,
-- so that neither can be destroyed under it.
CREATE TABLE briefs (
    id INTEGER NOT NULL PRIMARY KEY,
    slug TEXT NOT NULL CHECK (length(slug) BETWEEN 1 AND 64),
    revision INTEGER NOT NULL DEFAULT 1 CHECK (revision >= 1),
    updated_at INTEGER NOT NULL DEFAULT 0,
    deleted_at INTEGER,
    name TEXT NOT NULL,
    rig_id INTEGER REFERENCES rigs (id) ON DELETE RESTRICT ON UPDATE CASCADE,
    water_id INTEGER REFERENCES waters (id) ON DELETE RESTRICT ON UPDATE CASCADE,
    question TEXT NOT NULL CHECK (json_valid(question))
) STRICT;
CREATE UNIQUE INDEX briefs_by_slug ON briefs (slug) WHERE deleted_at IS NULL;
CREATE INDEX briefs_by_rig ON briefs (rig_id);
CREATE INDEX briefs_by_water ON briefs (water_id);

CREATE TABLE settings (
    id INTEGER NOT NULL PRIMARY KEY,
    slug TEXT NOT NULL CHECK (length(slug) BETWEEN 1 AND 64),
    revision INTEGER NOT NULL DEFAULT 1 CHECK (revision >= 1),
    updated_at INTEGER NOT NULL DEFAULT 0,
    deleted_at INTEGER,
    value TEXT NOT NULL
) STRICT;
CREATE UNIQUE INDEX settings_by_slug ON settings (slug) WHERE deleted_at IS NULL;

-- Every change of every record: what it was, what it became (NULL: not there),
-- when, by whom, in which group of changes, and which group it undoes.
CREATE TABLE journal (
    id INTEGER NOT NULL PRIMARY KEY AUTOINCREMENT,
    at INTEGER NOT NULL,
    who TEXT NOT NULL,
    change_group INTEGER NOT NULL,
    label TEXT NOT NULL,
    undoes INTEGER,
    kind TEXT NOT NULL CHECK (kind IN ('hull', 'water', 'rig', 'brief', 'setting')),
    record INTEGER NOT NULL,
    revision INTEGER NOT NULL CHECK (revision >= 1),
    before TEXT CHECK (before IS NULL OR json_valid(before)),
    after TEXT CHECK (after IS NULL OR json_valid(after)),
    UNIQUE (kind, record, revision)
) STRICT;
CREATE INDEX journal_by_group ON journal (change_group);

INSERT INTO hulls (slug, maker, model, year, construction, bottom, propulsion, drive_lifts,
                   tracks_straight, seats, fitted_includes, capacity_basis, notes, extra)
SELECT key, maker, model, year, construction, bottom, propulsion, drive_lifts,
       tracks_straight, seats, fitted_includes, capacity_basis, notes, extra
FROM old_hulls ORDER BY key;
INSERT INTO readings (hull_id, measure, value, source)
SELECT h.id, r.measure, r.value, r.source
FROM old_readings r JOIN hulls h ON h.slug = r.hull_key ORDER BY r.id;
INSERT INTO evidence (hull_id, aboard_mass, aboard_place, aboard_height, density, scuppers, kind, reading)
SELECT h.id,
       json_extract(e.entry, '$.aboard_kg'),
       json_extract(e.entry, '$.aboard_place'),
       json_extract(e.entry, '$.aboard_height_m'),
       1000.0,
       'open',
       (SELECT k.key FROM json_each(e.entry, '$.reading') k LIMIT 1),
       (SELECT k.value FROM json_each(e.entry, '$.reading') k LIMIT 1)
FROM old_evidence e JOIN hulls h ON h.slug = e.hull_key ORDER BY e.id;
INSERT INTO waters (slug, name, density, freeboard, floor_clearance, working_share, least_depth,
                    conditions, standing, capacity_weight, reserve_share, must_drain,
                    plugs_allowed, cautions)
SELECT key, name, density, freeboard, floor_clearance, working_share, least_depth,
       conditions, standing, capacity_weight, reserve_share, must_drain,
       plugs_allowed, cautions
FROM old_waters ORDER BY position;
INSERT INTO rigs (slug, name) SELECT key, name FROM old_rigs ORDER BY position;
INSERT INTO rig_lines (rig_id, item, count, dry_mass, loaded_mass, place, height, offset_y, energy_wh)
SELECT g.id, l.item, l.count, l.dry_mass, l.loaded_mass, l.place, l.height, l.offset_y, l.energy_wh
FROM old_rig_lines l JOIN rigs g ON g.slug = l.rig_key ORDER BY l.id;
INSERT INTO briefs (slug, name, rig_id, water_id, question)
SELECT b.key, b.name, g.id, w.id,
       json_patch('{}', json_object(
           'version', 1,
           'crew', json_object('mass_kg', b.crew_mass, 'stature_m', b.crew_stature),
           'posture', b.posture, 'rig', b.rig_key, 'water', b.water_key,
           'scuppers', b.scuppers, 'seat', b.seat,
           'capacity_weight', b.capacity_weight,
           'capacity_school', b.capacity_school, 'stability_school', b.stability_school,
           'must', json_object('longest_m', b.longest, 'heaviest_lift_kg', b.heaviest_lift,
                               'budget', b.budget)))
FROM old_briefs b JOIN rigs g ON g.slug = b.rig_key JOIN waters w ON w.slug = b.water_key
ORDER BY b.position;
INSERT INTO settings (slug, value) SELECT key, value FROM old_settings;

DROP TABLE old_briefs;
DROP TABLE old_rig_lines;
DROP TABLE old_rigs;
DROP TABLE old_waters;
DROP TABLE old_evidence;
DROP TABLE old_readings;
DROP TABLE old_hulls;
DROP TABLE old_settings;
