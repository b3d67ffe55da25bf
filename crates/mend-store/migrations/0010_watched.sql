-- What was said of a heating while it was watched, as it was shown: docs/formats/live.md. Never changed.
CREATE TABLE run_states (
    run_id   INTEGER NOT NULL REFERENCES runs (id),
    begun_ms INTEGER NOT NULL,             -- air on, since the run was opened: an air-on that was taken back is another one
    at_s     INTEGER NOT NULL,             -- seconds from air on
    step     INTEGER NOT NULL,             -- from 0
    says     TEXT    NOT NULL,             -- a state
    PRIMARY KEY (run_id, begun_ms, at_s)
) STRICT, WITHOUT ROWID;
-- The job that taught a lesson, if a job did.
ALTER TABLE lessons ADD COLUMN job_id INTEGER REFERENCES jobs (id);
CREATE INDEX lessons_of_job ON lessons (job_id);
-- Jobs that were given back and whose lesson is still to be computed.
CREATE TABLE to_learn (
    job_id INTEGER PRIMARY KEY REFERENCES jobs (id)
) STRICT;
-- Instruments at the bench.
CREATE TABLE instruments (
    id       INTEGER PRIMARY KEY,
    name     TEXT    NOT NULL UNIQUE,
    kind     TEXT    NOT NULL,             -- thermometer, readout, meter
    address  TEXT    NOT NULL,             -- number and port
    at_bench INTEGER NOT NULL              -- a thermometer that is read at the heat step
) STRICT;
-- What a thermometer read while a heating was watched.
CREATE TABLE run_readings (
    run_id   INTEGER NOT NULL REFERENCES runs (id),
    begun_ms INTEGER NOT NULL,             -- air on, since the run was opened
    after_ms INTEGER NOT NULL,             -- from then on
    celsius  REAL,                         -- none: it read nothing
    PRIMARY KEY (run_id, begun_ms, after_ms)
) STRICT, WITHOUT ROWID;
