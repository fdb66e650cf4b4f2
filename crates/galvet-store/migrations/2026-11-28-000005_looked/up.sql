-- What was looked at and judged on a hull: places it has not, comfort, quiet,
-- steering, odd figures somebody stands by.
ALTER TABLE hulls ADD COLUMN looked TEXT NOT NULL DEFAULT '{}' CHECK (json_valid(looked));
