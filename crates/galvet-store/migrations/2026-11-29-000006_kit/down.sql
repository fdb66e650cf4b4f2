-- There is no way back: an older Galvet has no place for containers.
-- The copy made before the change is the way back.
SELECT RAISE(ABORT, 'what was packed cannot be taken back; use the copy made before it');
