-- Pixels of photos, each once, under the SHA-256 of its JPEG; photos name them.
CREATE TABLE pictures (
    name TEXT NOT NULL PRIMARY KEY CHECK (length(name) = 64),
    jpeg BLOB NOT NULL CHECK (length(jpeg) > 0)
) STRICT;
-- Standard error of a reading that came with one of its own, SI.
ALTER TABLE readings ADD COLUMN error REAL CHECK (error IS NULL OR error >= 0);
