-- What measuring and jobs have taught of stations and boards. Never changed but to be left out, with a reason.
CREATE TABLE lessons (
    id         INTEGER PRIMARY KEY,
    kind       TEXT    NOT NULL,           -- flow, outlet, probe
    station_id INTEGER NOT NULL REFERENCES stations (id),
    nozzle_mm  REAL,                       -- none: whatever nozzle
    board_id   INTEGER REFERENCES boards (id),
    says       TEXT    NOT NULL,           -- urgent-mend/lesson/1
    entered    TEXT    NOT NULL,           -- what was entered, as the page has it
    figures    TEXT    NOT NULL,           -- what came of it, as the page shows it
    taught_ms  INTEGER NOT NULL,
    left_out   TEXT                        -- why it does not count
) STRICT;
CREATE INDEX lessons_of_station ON lessons (station_id);
CREATE INDEX lessons_of_board ON lessons (board_id);
-- A measurement that is under way: kept field by field, so that it goes on where it was.
CREATE TABLE measuring (
    station_id INTEGER NOT NULL REFERENCES stations (id),
    kind       TEXT    NOT NULL,
    field      TEXT    NOT NULL,
    value      TEXT    NOT NULL,
    typed_ms   INTEGER NOT NULL,
    PRIMARY KEY (station_id, kind, field)
) STRICT;
