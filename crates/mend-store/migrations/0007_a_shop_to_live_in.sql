-- A bench run is a record: its steps are stored with it, and all that happened in it is one list of events. `id` is the order,
-- never the wall clock. `at_ms` (when it was pressed) and `came_ms` (when the shop had it) are measured from the opening of the run
-- by the machine's own monotonic clock: `clock` says which one, as it begins anew when the machine does, and `tick_ms` is its
-- reading. `arrived_ms` is the time of day, for printing only.
ALTER TABLE runs ADD COLUMN steps TEXT;                          -- JSON; null: of an older version, written at its next event
ALTER TABLE runs ADD COLUMN clock TEXT NOT NULL DEFAULT '';
ALTER TABLE runs ADD COLUMN tick_ms INTEGER NOT NULL DEFAULT 0;

CREATE TABLE run_events (
    id         INTEGER PRIMARY KEY AUTOINCREMENT,
    run_id     INTEGER NOT NULL REFERENCES runs (id),
    kind       TEXT    NOT NULL,                                 -- go, stopped, undo, fed, flooded, wicked, overridden
    step       INTEGER NOT NULL,                                 -- the step at which it was entered, from 0
    row_name   TEXT    NOT NULL,                                 -- of the ledger: a row; empty: all of them
    reason     TEXT    NOT NULL,
    at_ms      INTEGER NOT NULL,
    came_ms    INTEGER NOT NULL,
    clock      TEXT    NOT NULL,
    tick_ms    INTEGER NOT NULL,
    arrived_ms INTEGER NOT NULL,
    token      TEXT    NOT NULL,                                 -- made by the browser: sent again it is the same event
    UNIQUE (run_id, token)
) STRICT;
CREATE INDEX events_of_run ON run_events (run_id, id);

INSERT INTO run_events (run_id, kind, step, row_name, reason, at_ms, came_ms, clock, tick_ms, arrived_ms, token)
    SELECT e.run_id, e.kind, -1, e.row_name, e.reason, max(0, e.at_ms - r.started_ms), max(0, e.at_ms - r.started_ms), '', 0, e.at_ms, e.token FROM (
        SELECT id, run_id, CASE press WHEN 'back' THEN 'undo' ELSE press END AS kind, '' AS row_name, '' AS reason, at_ms,
               'press ' || token AS token, 0 AS part FROM presses
        UNION ALL
        SELECT id, run_id, act, row_name, reason, at_ms, 'ledger ' || token, 1 FROM ledger
    ) e JOIN runs r ON r.id = e.run_id ORDER BY e.at_ms, e.part, e.id;
DROP TABLE presses;
DROP TABLE ledger;

-- Every mark of a pin as it came; `pins` holds the newest.
CREATE TABLE pin_marks (
    id        INTEGER PRIMARY KEY,
    job_id    INTEGER NOT NULL REFERENCES jobs (id),
    pin       TEXT    NOT NULL,
    mark      TEXT    NOT NULL,                                  -- empty: taken back
    marked_ms INTEGER NOT NULL,
    token     TEXT    NOT NULL,
    UNIQUE (job_id, token)
) STRICT;

-- What the handing over and reopening of jobs left on record.
CREATE TABLE job_log (
    id     INTEGER PRIMARY KEY,
    job_id INTEGER NOT NULL REFERENCES jobs (id),
    what   TEXT    NOT NULL,                                     -- handed-over, reopened
    who    TEXT    NOT NULL,
    reason TEXT    NOT NULL,
    at_ms  INTEGER NOT NULL
) STRICT;
CREATE INDEX log_of_job ON job_log (job_id, id);
INSERT INTO job_log (job_id, what, who, reason, at_ms)
    SELECT id, 'handed-over', '', '', handed_over_ms FROM jobs WHERE handed_over_ms IS NOT NULL;

-- What lists show of a job, written in the transaction that changes it. A job without a row is one of an older version; its row is
-- made at the next start.
CREATE TABLE job_index (
    job_id    INTEGER PRIMARY KEY REFERENCES jobs (id),
    open      INTEGER NOT NULL,
    model_id  INTEGER REFERENCES models (id),
    device    TEXT    NOT NULL,
    summary   TEXT    NOT NULL,                                  -- JSON: the line of stops and what stands beside it
    low_s     REAL,                                              -- predicted release; null: none, or no end
    mid_s     REAL,
    high_s    REAL,
    actual_s  REAL,                                              -- a first attempt from cold; null: none
    within    INTEGER NOT NULL DEFAULT 0                         -- did it come within the band?
) STRICT;
CREATE INDEX open_jobs ON job_index (job_id) WHERE open = 1;
CREATE INDEX closed_jobs ON job_index (job_id) WHERE open = 0;
CREATE INDEX releases_of_model ON job_index (model_id, job_id) WHERE actual_s IS NOT NULL;
CREATE VIRTUAL TABLE job_search USING fts5 (words, tokenize = "unicode61 remove_diacritics 2");

ALTER TABLE models ADD COLUMN jobs INTEGER NOT NULL DEFAULT 0;
ALTER TABLE models ADD COLUMN released INTEGER NOT NULL DEFAULT 0;
ALTER TABLE models ADD COLUMN within INTEGER NOT NULL DEFAULT 0;
CREATE TRIGGER job_counted AFTER INSERT ON job_index BEGIN
    UPDATE models SET jobs = jobs + 1, released = released + (new.actual_s IS NOT NULL), within = within + new.within
        WHERE id = new.model_id;
END;
CREATE TRIGGER job_uncounted AFTER DELETE ON job_index BEGIN
    UPDATE models SET jobs = jobs - 1, released = released - (old.actual_s IS NOT NULL), within = within - old.within
        WHERE id = old.model_id;
END;

-- A station may be renamed and retired; a job that names it by an old name still finds it.
ALTER TABLE stations ADD COLUMN retired_ms INTEGER;
CREATE TABLE station_names (
    name       TEXT    PRIMARY KEY,
    station_id INTEGER NOT NULL REFERENCES stations (id)
) STRICT, WITHOUT ROWID;
INSERT INTO station_names (name, station_id) SELECT name, id FROM stations;
-- The station's file that a plan was computed with: a plan for a station that has been changed is computed anew.
ALTER TABLE plans ADD COLUMN station TEXT;

-- The shop's own settings: one row.
CREATE TABLE shop (
    id       INTEGER PRIMARY KEY CHECK (id = 1),
    file     TEXT    NOT NULL,                                   -- urgent-mend/shop/1
    typed_ms INTEGER NOT NULL
) STRICT;

-- A draft's acts in their order, with who did them: an act made on an older state than somebody else's is refused.
ALTER TABLE drafts ADD COLUMN revision INTEGER NOT NULL DEFAULT 0;
CREATE TABLE draft_acts (
    draft_id INTEGER NOT NULL REFERENCES drafts (id) ON DELETE CASCADE,
    revision INTEGER NOT NULL,
    client   TEXT    NOT NULL,
    token    TEXT    NOT NULL,
    PRIMARY KEY (draft_id, revision)
) STRICT, WITHOUT ROWID;
CREATE UNIQUE INDEX acts_by_token ON draft_acts (draft_id, token);

-- A job that has been handed over is closed to every write until it is reopened. `jobs.handed_over_ms` itself is what opens it.
CREATE TRIGGER closed_intake_added BEFORE INSERT ON intake WHEN EXISTS (SELECT 1 FROM jobs WHERE id = new.job_id AND handed_over_ms IS NOT NULL)
    BEGIN SELECT RAISE(ABORT, 'job closed'); END;
CREATE TRIGGER closed_charge BEFORE INSERT ON charges WHEN EXISTS (SELECT 1 FROM jobs WHERE id = new.job_id AND handed_over_ms IS NOT NULL)
    BEGIN SELECT RAISE(ABORT, 'job closed'); END;
CREATE TRIGGER closed_settings BEFORE INSERT ON settings WHEN EXISTS (SELECT 1 FROM jobs WHERE id = new.job_id AND handed_over_ms IS NOT NULL)
    BEGIN SELECT RAISE(ABORT, 'job closed'); END;
CREATE TRIGGER closed_plan BEFORE INSERT ON plans WHEN EXISTS (SELECT 1 FROM jobs WHERE id = new.job_id AND handed_over_ms IS NOT NULL)
    BEGIN SELECT RAISE(ABORT, 'job closed'); END;
CREATE TRIGGER closed_variant BEFORE INSERT ON variants WHEN EXISTS (SELECT 1 FROM jobs WHERE id = new.job_id AND handed_over_ms IS NOT NULL)
    BEGIN SELECT RAISE(ABORT, 'job closed'); END;
CREATE TRIGGER closed_variant_gone BEFORE DELETE ON variants WHEN EXISTS (SELECT 1 FROM jobs WHERE id = old.job_id AND handed_over_ms IS NOT NULL)
    BEGIN SELECT RAISE(ABORT, 'job closed'); END;
CREATE TRIGGER closed_run BEFORE INSERT ON runs WHEN EXISTS (SELECT 1 FROM jobs WHERE id = new.job_id AND handed_over_ms IS NOT NULL)
    BEGIN SELECT RAISE(ABORT, 'job closed'); END;
CREATE TRIGGER closed_event BEFORE INSERT ON run_events
    WHEN EXISTS (SELECT 1 FROM runs JOIN jobs ON jobs.id = runs.job_id WHERE runs.id = new.run_id AND handed_over_ms IS NOT NULL)
    BEGIN SELECT RAISE(ABORT, 'job closed'); END;
CREATE TRIGGER closed_mark BEFORE INSERT ON pin_marks WHEN EXISTS (SELECT 1 FROM jobs WHERE id = new.job_id AND handed_over_ms IS NOT NULL)
    BEGIN SELECT RAISE(ABORT, 'job closed'); END;
CREATE TRIGGER closed_pin BEFORE INSERT ON pins WHEN EXISTS (SELECT 1 FROM jobs WHERE id = new.job_id AND handed_over_ms IS NOT NULL)
    BEGIN SELECT RAISE(ABORT, 'job closed'); END;
CREATE TRIGGER closed_board BEFORE UPDATE OF board_id ON jobs WHEN old.handed_over_ms IS NOT NULL
    BEGIN SELECT RAISE(ABORT, 'job closed'); END;
