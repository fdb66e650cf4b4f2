-- Since when somebody has a password that somebody else chose: it is good for some days.
ALTER TABLE people ADD COLUMN lent_at INTEGER;
UPDATE people SET lent_at = since WHERE lent = 1;
ALTER TABLE people DROP COLUMN lent;
