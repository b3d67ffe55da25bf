-- Opening maps: one for a device model, in versions; and which of them a job goes by.
CREATE TABLE opening_models (
    id         INTEGER PRIMARY KEY,
    name       TEXT    NOT NULL UNIQUE,
    entered_ms INTEGER NOT NULL
) STRICT;
CREATE TABLE opening_maps (
    id         INTEGER PRIMARY KEY,
    model_id   INTEGER NOT NULL REFERENCES opening_models (id),
    version    INTEGER NOT NULL,           -- from 1
    map        TEXT    NOT NULL,           -- urgent-mend/opening/1
    entered_ms INTEGER NOT NULL,
    UNIQUE (model_id, version)
) STRICT;
CREATE TABLE job_openings (
    job_id INTEGER PRIMARY KEY REFERENCES jobs (id),
    map_id INTEGER NOT NULL REFERENCES opening_maps (id)
) STRICT;
CREATE INDEX job_openings_of_map ON job_openings (map_id);
CREATE TRIGGER closed_opening BEFORE INSERT ON job_openings WHEN EXISTS (SELECT 1 FROM jobs WHERE id = new.job_id AND handed_over_ms IS NOT NULL)
    BEGIN SELECT RAISE(ABORT, 'job closed'); END;
CREATE TRIGGER closed_opening_changed BEFORE UPDATE ON job_openings WHEN EXISTS (SELECT 1 FROM jobs WHERE id = new.job_id AND handed_over_ms IS NOT NULL)
    BEGIN SELECT RAISE(ABORT, 'job closed'); END;
-- The lists have a figure for each stop, and there is one more.
DELETE FROM job_index;
