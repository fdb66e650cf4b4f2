-- Who may come in. Not records: neither journal nor exchange file nor trash knows them, so
-- that no import makes an owner and no list of changes holds a password.
CREATE TABLE people (
    id INTEGER NOT NULL PRIMARY KEY AUTOINCREMENT,
    -- What the journal calls them: random, so that no two installations mean two people by
    -- one, and a name is changed or forgotten without touching what was written.
    handle TEXT NOT NULL UNIQUE CHECK (length(handle) = 14),
    name TEXT NOT NULL CHECK (length(name) BETWEEN 1 AND 60),
    -- The name as it is compared: a person is not two people by capitals.
    folded TEXT NOT NULL,
    role TEXT NOT NULL CHECK (role IN ('looker', 'staff', 'owner')),
    -- Argon2id, as a PHC string.
    password TEXT NOT NULL,
    -- Somebody else chose the password: it is changed before anything else is done.
    lent INTEGER NOT NULL CHECK (lent IN (0, 1)),
    since INTEGER NOT NULL,
    left_at INTEGER
) STRICT;
CREATE UNIQUE INDEX people_by_name ON people (folded) WHERE left_at IS NULL;

CREATE TABLE sessions (
    id INTEGER NOT NULL PRIMARY KEY AUTOINCREMENT,
    -- SHA-256 of what the browser keeps: whoever reads this table is nobody by it.
    hash TEXT NOT NULL UNIQUE CHECK (length(hash) = 64),
    person INTEGER NOT NULL REFERENCES people (id) ON DELETE CASCADE,
    browser TEXT NOT NULL,
    made_at INTEGER NOT NULL,
    seen_at INTEGER NOT NULL,
    -- When the password was last given.
    proved_at INTEGER NOT NULL
) STRICT;
CREATE INDEX sessions_by_person ON sessions (person);

-- Who let whom in, and what was done to accounts.
CREATE TABLE account_log (
    id INTEGER NOT NULL PRIMARY KEY AUTOINCREMENT,
    at INTEGER NOT NULL,
    who TEXT NOT NULL,
    about TEXT NOT NULL,
    act TEXT NOT NULL
) STRICT;
