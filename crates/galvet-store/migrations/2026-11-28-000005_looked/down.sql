-- There is no way back: an older Galvet has no place for what was judged.
-- The copy made before the change is the way back.
SELECT RAISE(ABORT, 'what was looked at cannot be taken back; use the copy made before it');
