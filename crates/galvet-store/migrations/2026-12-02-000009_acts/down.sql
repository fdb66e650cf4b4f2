DROP INDEX journal_by_who;
DROP INDEX journal_by_undoes;
