-- Undo is one's own act: the last acts of a person, and whether each was taken back, are
-- found without reading the journal.
CREATE INDEX journal_by_who ON journal (who, change_group, undoes);
CREATE INDEX journal_by_undoes ON journal (undoes) WHERE undoes IS NOT NULL;
