DROP TABLE pictures;
ALTER TABLE readings DROP COLUMN error;
