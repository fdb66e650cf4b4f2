CREATE TABLE evidence_then (
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
INSERT INTO evidence_then SELECT * FROM evidence
    WHERE kind IN ('floor-above-water', 'gunwale-above-water', 'waterline', 'tilt');
DROP TABLE evidence;
ALTER TABLE evidence_then RENAME TO evidence;
CREATE INDEX evidence_by_hull ON evidence (hull_id);
