DROP TRIGGER closed_intake_added; DROP TRIGGER closed_charge; DROP TRIGGER closed_settings; DROP TRIGGER closed_plan;
DROP TRIGGER closed_variant; DROP TRIGGER closed_variant_gone; DROP TRIGGER closed_run; DROP TRIGGER closed_event;
DROP TRIGGER closed_mark; DROP TRIGGER closed_pin; DROP TRIGGER closed_board;
DROP TABLE draft_acts;
ALTER TABLE drafts DROP COLUMN revision;
DROP TABLE shop;
ALTER TABLE plans DROP COLUMN station;
DROP TABLE station_names;
ALTER TABLE stations DROP COLUMN retired_ms;
DROP TRIGGER job_counted; DROP TRIGGER job_uncounted;
DROP TABLE job_search;
DROP TABLE job_index;
ALTER TABLE models DROP COLUMN jobs; ALTER TABLE models DROP COLUMN released; ALTER TABLE models DROP COLUMN within;
DROP TABLE job_log;
DROP TABLE pin_marks;
CREATE TABLE presses (
    id INTEGER PRIMARY KEY, run_id INTEGER NOT NULL REFERENCES runs (id), press TEXT NOT NULL, at_ms INTEGER NOT NULL,
    token TEXT NOT NULL, UNIQUE (run_id, token)
) STRICT;
CREATE TABLE ledger (
    id INTEGER PRIMARY KEY, run_id INTEGER NOT NULL REFERENCES runs (id), act TEXT NOT NULL, row_name TEXT NOT NULL,
    reason TEXT NOT NULL, at_ms INTEGER NOT NULL, token TEXT NOT NULL, UNIQUE (run_id, token)
) STRICT;
INSERT INTO presses (run_id, press, at_ms, token)
    SELECT e.run_id, CASE e.kind WHEN 'undo' THEN 'back' ELSE e.kind END, r.started_ms + e.at_ms, e.token
    FROM run_events e JOIN runs r ON r.id = e.run_id WHERE e.kind IN ('go', 'stopped', 'undo') ORDER BY e.id;
INSERT INTO ledger (run_id, act, row_name, reason, at_ms, token)
    SELECT e.run_id, e.kind, e.row_name, e.reason, r.started_ms + e.at_ms, e.token
    FROM run_events e JOIN runs r ON r.id = e.run_id WHERE e.kind NOT IN ('go', 'stopped', 'undo') ORDER BY e.id;
DROP TABLE run_events;
ALTER TABLE runs DROP COLUMN steps; ALTER TABLE runs DROP COLUMN clock; ALTER TABLE runs DROP COLUMN tick_ms;
