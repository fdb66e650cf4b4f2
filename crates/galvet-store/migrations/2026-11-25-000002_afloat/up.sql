-- What was measured afloat, one JSON document each (the file format's entry).
CREATE TABLE evidence (
    id INTEGER NOT NULL PRIMARY KEY AUTOINCREMENT,
    hull_key TEXT NOT NULL REFERENCES hulls (key) ON DELETE CASCADE,
    entry TEXT NOT NULL
);
CREATE INDEX evidence_by_hull ON evidence (hull_key);

ALTER TABLE rig_lines ADD COLUMN energy_wh DOUBLE NOT NULL DEFAULT 0;
ALTER TABLE briefs ADD COLUMN capacity_school TEXT NOT NULL DEFAULT 'tightest';
ALTER TABLE briefs ADD COLUMN stability_school TEXT NOT NULL DEFAULT 'by-posture';
