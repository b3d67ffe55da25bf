-- What is reviewed of a job that was given back, written when it is closed; one that lacks its row gets it at the next start.
CREATE TABLE job_outcomes (
    job_id     INTEGER PRIMARY KEY REFERENCES jobs (id),
    closed_ms  INTEGER NOT NULL,
    connector  TEXT    NOT NULL,
    method     TEXT    NOT NULL,
    station    TEXT    NOT NULL,           -- empty: nothing was heated
    board      TEXT    NOT NULL,
    person     TEXT    NOT NULL,
    low_s      REAL,                       -- the predicted band of the release
    mid_s      REAL,
    high_s     REAL,
    actual_s   REAL,
    chance     REAL,
    reworks    INTEGER NOT NULL,
    damaged    TEXT    NOT NULL,           -- a name a line
    declined   INTEGER NOT NULL,
    overridden INTEGER NOT NULL
) STRICT;
CREATE INDEX returns_of_job ON jobs (return_of) WHERE return_of IS NOT NULL;
