-- Stream, m/s, and depth one anchors in, m, of a water; nothing where nobody says.
ALTER TABLE waters ADD COLUMN stream REAL CHECK (stream IS NULL OR stream >= 0);
ALTER TABLE waters ADD COLUMN anchor_depth REAL CHECK (anchor_depth IS NULL OR anchor_depth > 0);
