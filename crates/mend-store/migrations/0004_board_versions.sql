-- A board model has versions: a job keeps the version that it used. `boards` is made anew, as its name is no longer its
-- own; run with foreign keys off (Store::open), the references of jobs and plans stay as they are.
CREATE TABLE models (
    id         INTEGER PRIMARY KEY,
    name       TEXT    NOT NULL UNIQUE,
    entered_ms INTEGER NOT NULL
) STRICT;

CREATE TABLE versions (
    id         INTEGER PRIMARY KEY,
    model_id   INTEGER NOT NULL REFERENCES models (id),
    version    INTEGER NOT NULL,          -- from 1
    file       TEXT    NOT NULL,          -- urgent-mend/board/1
    draft      TEXT,                      -- urgent-mend/draft/1: its photographs, and how it was described
    entered_ms INTEGER NOT NULL,
    UNIQUE (model_id, version)
) STRICT;

INSERT INTO models (id, name, entered_ms) SELECT id, name, entered_ms FROM boards;
INSERT INTO versions (id, model_id, version, file, entered_ms) SELECT id, id, 1, file, entered_ms FROM boards;
DROP TABLE boards;
ALTER TABLE versions RENAME TO boards;
