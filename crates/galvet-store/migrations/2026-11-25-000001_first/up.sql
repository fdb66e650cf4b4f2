-- Lengths in metres, masses in kilograms, shares between 0 and 1.
CREATE TABLE hulls (
    key TEXT NOT NULL PRIMARY KEY,
    maker TEXT NOT NULL,
    model TEXT NOT NULL,
    year INTEGER,
    construction TEXT NOT NULL,
    bottom TEXT,
    propulsion TEXT NOT NULL,
    drive_lifts BOOLEAN NOT NULL,
    tracks_straight BOOLEAN NOT NULL,
    seats INTEGER NOT NULL,
    fitted_includes TEXT NOT NULL,
    capacity_basis TEXT NOT NULL,
    notes TEXT NOT NULL,
    -- Columns of the file Galvet does not know, as a JSON object.
    extra TEXT NOT NULL
);

-- One row for each reading of a figure: a figure may have been read twice.
CREATE TABLE readings (
    id INTEGER NOT NULL PRIMARY KEY AUTOINCREMENT,
    hull_key TEXT NOT NULL REFERENCES hulls (key) ON DELETE CASCADE,
    measure TEXT NOT NULL,
    value DOUBLE NOT NULL,
    source TEXT NOT NULL
);
CREATE INDEX readings_by_hull ON readings (hull_key);

CREATE TABLE waters (
    key TEXT NOT NULL PRIMARY KEY,
    position INTEGER NOT NULL,
    name TEXT NOT NULL,
    density DOUBLE NOT NULL,
    freeboard DOUBLE NOT NULL,
    floor_clearance DOUBLE NOT NULL,
    working_share DOUBLE NOT NULL,
    least_depth DOUBLE NOT NULL,
    conditions TEXT NOT NULL,
    standing TEXT NOT NULL,
    capacity_weight DOUBLE NOT NULL,
    reserve_share DOUBLE NOT NULL,
    must_drain BOOLEAN NOT NULL,
    plugs_allowed BOOLEAN NOT NULL,
    -- A JSON array of sentences.
    cautions TEXT NOT NULL
);

CREATE TABLE rigs (
    key TEXT NOT NULL PRIMARY KEY,
    position INTEGER NOT NULL,
    name TEXT NOT NULL
);

CREATE TABLE rig_lines (
    id INTEGER NOT NULL PRIMARY KEY AUTOINCREMENT,
    rig_key TEXT NOT NULL REFERENCES rigs (key) ON DELETE CASCADE,
    item TEXT NOT NULL,
    count INTEGER NOT NULL,
    dry_mass DOUBLE NOT NULL,
    loaded_mass DOUBLE NOT NULL,
    place DOUBLE NOT NULL,
    height DOUBLE NOT NULL,
    offset_y DOUBLE NOT NULL
);
CREATE INDEX rig_lines_by_rig ON rig_lines (rig_key);

CREATE TABLE briefs (
    key TEXT NOT NULL PRIMARY KEY,
    position INTEGER NOT NULL,
    name TEXT NOT NULL,
    crew_mass DOUBLE NOT NULL,
    crew_stature DOUBLE NOT NULL,
    posture TEXT NOT NULL,
    rig_key TEXT NOT NULL REFERENCES rigs (key) ON DELETE RESTRICT,
    water_key TEXT NOT NULL REFERENCES waters (key) ON DELETE RESTRICT,
    scuppers TEXT NOT NULL,
    seat TEXT NOT NULL,
    capacity_weight DOUBLE,
    longest DOUBLE,
    heaviest_lift DOUBLE,
    budget DOUBLE
);

CREATE TABLE settings (
    key TEXT NOT NULL PRIMARY KEY,
    value TEXT NOT NULL
);
