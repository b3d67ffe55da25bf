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
