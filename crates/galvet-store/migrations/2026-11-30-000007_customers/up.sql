-- For whom a question was kept stands on its own. Until now it stood before the name,
-- parted by a colon and a space.
ALTER TABLE briefs ADD COLUMN customer TEXT NOT NULL DEFAULT '';
UPDATE briefs
SET customer = substr(name, 1, instr(name, ': ') - 1),
    name = substr(name, instr(name, ': ') + 2)
WHERE instr(name, ': ') > 1 AND length(name) > instr(name, ': ') + 1;
