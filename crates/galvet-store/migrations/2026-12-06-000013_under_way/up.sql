-- What is read under way (drift, speed kept up, draining) is evidence as well: which kinds
-- there are is said once, where they are read and written.
CREATE TABLE evidence_now (
    id INTEGER NOT NULL PRIMARY KEY,
    hull_id INTEGER NOT NULL REFERENCES hulls (id) ON DELETE CASCADE ON UPDATE CASCADE,
    aboard_mass REAL NOT NULL CHECK (aboard_mass >= 0),
    aboard_place REAL NOT NULL CHECK (aboard_place BETWEEN 0 AND 1),
    aboard_height REAL NOT NULL,
    density REAL NOT NULL CHECK (density BETWEEN 990 AND 1035),
    scuppers TEXT NOT NULL,
    taken TEXT NOT NULL DEFAULT '',
    kind TEXT NOT NULL CHECK (length(kind) BETWEEN 1 AND 40),
    reading TEXT NOT NULL CHECK (json_valid(reading))
) STRICT;
INSERT INTO evidence_now SELECT id, hull_id, aboard_mass, aboard_place, aboard_height, density,
    scuppers, taken, kind, reading FROM evidence;
DROP TABLE evidence;
ALTER TABLE evidence_now RENAME TO evidence;
CREATE INDEX evidence_by_hull ON evidence (hull_id);
