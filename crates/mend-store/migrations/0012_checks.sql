-- What was found of a job's lands, pins and tests, entry by entry: the newest of a list and a name counts, an empty value takes it back.
CREATE TABLE check_entries (
    id         INTEGER PRIMARY KEY,
    job_id     INTEGER NOT NULL REFERENCES jobs (id),
    list       TEXT    NOT NULL,           -- before, off, after, good (readings), condition, test-open, test-closed, skipped
    name       TEXT    NOT NULL,           -- a pin, a joint, a test, a stop
    value      TEXT    NOT NULL,
    entered_ms INTEGER NOT NULL,
    token      TEXT    NOT NULL,           -- made by the browser
    UNIQUE (job_id, token)
) STRICT;
CREATE INDEX check_entries_of_job ON check_entries (job_id, list, name);
CREATE TRIGGER closed_check BEFORE INSERT ON check_entries WHEN EXISTS (SELECT 1 FROM jobs WHERE id = new.job_id AND handed_over_ms IS NOT NULL)
    BEGIN SELECT RAISE(ABORT, 'job closed'); END;
-- What was found while inside and is offered to the customer as an extra line, with the answer on record.
CREATE TABLE extras (
    id          INTEGER PRIMARY KEY,
    job_id      INTEGER NOT NULL REFERENCES jobs (id),
    what        TEXT    NOT NULL,
    price       TEXT    NOT NULL,          -- as the shop writes it; empty: nothing
    answer      TEXT    NOT NULL,          -- accepted, declined; empty: not asked yet
    who         TEXT    NOT NULL,          -- who answered
    found_ms    INTEGER NOT NULL,
    answered_ms INTEGER
) STRICT;
CREATE INDEX extras_of_job ON extras (job_id);
CREATE TRIGGER closed_extra BEFORE INSERT ON extras WHEN EXISTS (SELECT 1 FROM jobs WHERE id = new.job_id AND handed_over_ms IS NOT NULL)
    BEGIN SELECT RAISE(ABORT, 'job closed'); END;
CREATE TRIGGER closed_extra_answer BEFORE UPDATE ON extras WHEN EXISTS (SELECT 1 FROM jobs WHERE id = new.job_id AND handed_over_ms IS NOT NULL)
    BEGIN SELECT RAISE(ABORT, 'job closed'); END;
-- The lists have a figure for each stop, and there are two more: every job is listed anew when the shop is opened.
DELETE FROM job_index;
-- Photographs of a job, of whatever stop.
CREATE TABLE job_photos (
    id       INTEGER PRIMARY KEY,
    job_id   INTEGER NOT NULL REFERENCES jobs (id),
    photo_id INTEGER NOT NULL REFERENCES photos (id),
    stop     TEXT    NOT NULL,
    words    TEXT    NOT NULL,             -- what is to be seen; empty: nothing said
    on_sheet INTEGER NOT NULL,             -- shown on the customer's sheet?
    added_ms INTEGER NOT NULL
) STRICT;
CREATE INDEX job_photos_of_job ON job_photos (job_id);
CREATE TRIGGER closed_photo BEFORE INSERT ON job_photos WHEN EXISTS (SELECT 1 FROM jobs WHERE id = new.job_id AND handed_over_ms IS NOT NULL)
    BEGIN SELECT RAISE(ABORT, 'job closed'); END;
CREATE TRIGGER closed_photo_changed BEFORE UPDATE ON job_photos WHEN EXISTS (SELECT 1 FROM jobs WHERE id = new.job_id AND handed_over_ms IS NOT NULL)
    BEGIN SELECT RAISE(ABORT, 'job closed'); END;
CREATE TRIGGER closed_photo_gone BEFORE DELETE ON job_photos WHEN EXISTS (SELECT 1 FROM jobs WHERE id = old.job_id AND handed_over_ms IS NOT NULL)
    BEGIN SELECT RAISE(ABORT, 'job closed'); END;
