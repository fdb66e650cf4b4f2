DROP TABLE account_log;
DROP TABLE sessions;
DROP TABLE people;
