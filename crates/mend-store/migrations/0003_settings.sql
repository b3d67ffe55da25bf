-- What a job's heat plan is set to, as it is entered: kept before anything is computed from it, so that a cancelled or
-- broken computation loses nothing typed.
CREATE TABLE settings (
    job_id   INTEGER PRIMARY KEY REFERENCES jobs (id),
    inputs   TEXT    NOT NULL,            -- as in plans.inputs
    typed_ms INTEGER NOT NULL
) STRICT;
