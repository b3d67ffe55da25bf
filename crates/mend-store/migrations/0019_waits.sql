-- When a job stood still, and why. Kept by whatever lists the job: a cause begins when it is first seen, and ends when it is gone.
CREATE TABLE job_waits (
    job_id   INTEGER NOT NULL REFERENCES jobs (id),
    cause    TEXT    NOT NULL,             -- word, part, entered
    begun_ms INTEGER NOT NULL,
    ended_ms INTEGER,                      -- none: it waits still
    PRIMARY KEY (job_id, cause, begun_ms)
) STRICT, WITHOUT ROWID;
