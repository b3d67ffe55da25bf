-- The shop's own things and the course of a job. Moments are ms since the epoch (UTC). Board, station, plan and
-- plan inputs are kept as the text of their open formats: renaming a field in the core is no migration here.

CREATE TABLE boards (
    id         INTEGER PRIMARY KEY,
    name       TEXT    NOT NULL UNIQUE,
    file       TEXT    NOT NULL,          -- urgent-mend/board/1
    entered_ms INTEGER NOT NULL
) STRICT;

CREATE TABLE stations (
    id   INTEGER PRIMARY KEY,
    name TEXT NOT NULL UNIQUE,
    file TEXT NOT NULL                    -- urgent-mend/station/1
) STRICT;

CREATE TABLE jobs (
    id             INTEGER PRIMARY KEY,
    taken_in_ms    INTEGER NOT NULL,
    board_id       INTEGER REFERENCES boards (id),
    handed_over_ms INTEGER                -- null while it is in the shop
) STRICT;

-- One row per field as it is typed; an emptied field keeps its row, so that it shows who was asked.
CREATE TABLE intake (
    job_id   INTEGER NOT NULL REFERENCES jobs (id),
    field    TEXT    NOT NULL,
    value    TEXT    NOT NULL,
    typed_ms INTEGER NOT NULL,
    PRIMARY KEY (job_id, field)
) STRICT, WITHOUT ROWID;

-- Every plan that was computed for a job; the newest is the present one, a run keeps the one that it used.
CREATE TABLE plans (
    id       INTEGER PRIMARY KEY,
    job_id   INTEGER NOT NULL REFERENCES jobs (id),
    board_id INTEGER NOT NULL REFERENCES boards (id),
    inputs   TEXT    NOT NULL,            -- station, alloy, part, settings
    plan     TEXT    NOT NULL,            -- urgent-mend/plan/1
    made_ms  INTEGER NOT NULL
) STRICT;
CREATE INDEX plans_of_job ON plans (job_id, id);

CREATE TABLE runs (
    id         INTEGER PRIMARY KEY,
    job_id     INTEGER NOT NULL REFERENCES jobs (id),
    plan_id    INTEGER NOT NULL REFERENCES plans (id),
    started_ms INTEGER NOT NULL
) STRICT;
CREATE INDEX runs_of_job ON runs (job_id, id);

-- What happened at the bench, never changed. The token is made by the browser: a press sent again after a lost
-- answer is the same press.
CREATE TABLE presses (
    id     INTEGER PRIMARY KEY,
    run_id INTEGER NOT NULL REFERENCES runs (id),
    press  TEXT    NOT NULL,
    at_ms  INTEGER NOT NULL,
    token  TEXT    NOT NULL,
    UNIQUE (run_id, token)
) STRICT;

CREATE TABLE pins (
    job_id    INTEGER NOT NULL REFERENCES jobs (id),
    pin       TEXT    NOT NULL,
    mark      TEXT    NOT NULL,
    marked_ms INTEGER NOT NULL,
    PRIMARY KEY (job_id, pin)
) STRICT, WITHOUT ROWID;
