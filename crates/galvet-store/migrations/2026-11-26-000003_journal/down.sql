-- There is no way back: an older Galvet keeps no journal. The copy made before
-- the change is the way back.
SELECT RAISE(ABORT, 'the second edition cannot be taken back; use the copy made before it');
