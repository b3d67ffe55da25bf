-- The fit of the new part is a run of heat of its own: with settings and plans of its own.
CREATE TABLE fit_settings (
    job_id   INTEGER PRIMARY KEY REFERENCES jobs (id),
    inputs   TEXT    NOT NULL,            -- as in plans.inputs
    typed_ms INTEGER NOT NULL
) STRICT;
CREATE TRIGGER closed_fit_settings BEFORE INSERT ON fit_settings WHEN EXISTS (SELECT 1 FROM jobs WHERE id = new.job_id AND handed_over_ms IS NOT NULL)
    BEGIN SELECT RAISE(ABORT, 'job closed'); END;
ALTER TABLE plans ADD COLUMN fits INTEGER NOT NULL DEFAULT 0;   -- 1: of the fit
