-- What each stop of a job took, written when it is closed: what the next estimates learn from.
CREATE TABLE job_times (
    job_id  INTEGER NOT NULL REFERENCES jobs (id),
    stop    TEXT    NOT NULL,              -- as in its address
    seconds REAL    NOT NULL,
    prior_s REAL    NOT NULL,              -- what was to be expected of it before anything was learnt
    kind    TEXT    NOT NULL,              -- connector and method
    person  TEXT    NOT NULL,              -- who did most of it; empty: not known
    at_ms   INTEGER NOT NULL,
    PRIMARY KEY (job_id, stop)
) STRICT, WITHOUT ROWID;
CREATE INDEX times_of_stop ON job_times (stop, at_ms);

-- Quotes as they were given. A quote is never changed: another one takes its place, and wants the customer's word anew.
CREATE TABLE quotes (
    id          INTEGER PRIMARY KEY,
    job_id      INTEGER NOT NULL REFERENCES jobs (id),
    says        TEXT    NOT NULL,          -- JSON: its lines, as the sheet shows them
    total       TEXT    NOT NULL,          -- 85.00
    made_ms     INTEGER NOT NULL,
    person_id   INTEGER REFERENCES people (id),
    answer      TEXT    NOT NULL,          -- accepted, declined; empty: not answered yet
    who         TEXT    NOT NULL,          -- who answered
    answered_ms INTEGER
) STRICT;
CREATE INDEX quotes_of_job ON quotes (job_id, id);
CREATE TRIGGER hand_of_quote AFTER INSERT ON quotes WHEN (SELECT person_id FROM hand) IS NOT NULL
    BEGIN UPDATE quotes SET person_id = (SELECT person_id FROM hand) WHERE id = new.id; END;
CREATE TRIGGER closed_quote BEFORE INSERT ON quotes WHEN EXISTS (SELECT 1 FROM jobs WHERE id = new.job_id AND handed_over_ms IS NOT NULL)
    BEGIN SELECT RAISE(ABORT, 'job closed'); END;
CREATE TRIGGER quote_stays BEFORE UPDATE OF job_id, says, total, made_ms ON quotes BEGIN SELECT RAISE(ABORT, 'a quote is never changed'); END;

-- Where somebody has put a task of the schedule by hand.
CREATE TABLE task_pins (
    job_id        INTEGER NOT NULL REFERENCES jobs (id),
    task          TEXT    NOT NULL,        -- as in the address of its stop
    person_id     INTEGER REFERENCES people (id),
    not_before_ms INTEGER,
    PRIMARY KEY (job_id, task)
) STRICT, WITHOUT ROWID;

-- The lists know how much there is to do: every job is listed anew when the shop is opened.
DELETE FROM job_index;

-- A customer who is forgotten is taken out of what is closed too: only an answer is closed, not the name beside it.
DROP TRIGGER closed_extra_answer;
CREATE TRIGGER closed_extra_answer BEFORE UPDATE OF job_id, what, price, answer, answered_ms ON extras
    WHEN EXISTS (SELECT 1 FROM jobs WHERE id = new.job_id AND handed_over_ms IS NOT NULL)
    BEGIN SELECT RAISE(ABORT, 'job closed'); END;

-- A job that came back under warranty, and the first of its line.
ALTER TABLE jobs ADD COLUMN return_of INTEGER REFERENCES jobs (id);
