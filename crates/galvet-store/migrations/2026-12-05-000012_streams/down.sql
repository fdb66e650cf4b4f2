ALTER TABLE waters DROP COLUMN stream;
ALTER TABLE waters DROP COLUMN anchor_depth;
