-- There is no way back: an older Galvet has no place for zones and the shelf.
-- The copy made before the change is the way back.
SELECT RAISE(ABORT, 'zones and shelf cannot be taken back; use the copy made before them');
