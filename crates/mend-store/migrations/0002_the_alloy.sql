-- What a job's joints hold and are fed, as it is entered: the text of the charge that a bundle or a job file holds.
CREATE TABLE charges (
    job_id   INTEGER PRIMARY KEY REFERENCES jobs (id),
    charge   TEXT    NOT NULL,
    typed_ms INTEGER NOT NULL
) STRICT;

-- Feeding, flooding and wicking at the bench, and the word of who goes on against the arithmetic. Never changed; the
-- token is made by the browser, as with presses.
CREATE TABLE ledger (
    id        INTEGER PRIMARY KEY,
    run_id    INTEGER NOT NULL REFERENCES runs (id),
    act       TEXT    NOT NULL,
    row_name  TEXT    NOT NULL,          -- a row of the connector; empty: all of them
    reason    TEXT    NOT NULL,          -- of going on against the arithmetic, else empty
    at_ms     INTEGER NOT NULL,
    token     TEXT    NOT NULL,
    UNIQUE (run_id, token)
) STRICT;
