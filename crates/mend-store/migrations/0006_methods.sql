-- What the shop has and can besides its hot-air stations: one row.
CREATE TABLE means (
    id       INTEGER PRIMARY KEY CHECK (id = 1),
    file     TEXT    NOT NULL,                     -- urgent-mend/means/1
    typed_ms INTEGER NOT NULL
) STRICT;

-- A job's plans with one thing changed, by name.
CREATE TABLE variants (
    id      INTEGER PRIMARY KEY,
    job_id  INTEGER NOT NULL REFERENCES jobs (id),
    name    TEXT    NOT NULL,
    inputs  TEXT    NOT NULL,                      -- as a plan's
    made_ms INTEGER NOT NULL,
    UNIQUE (job_id, name)
) STRICT;
