-- Boards while they are described. Every act is a step with the whole draft after it; `step` is where undo stands. A number
-- is never given twice: a browser may still hold acts for a draft that has ended.
CREATE TABLE drafts (
    id         INTEGER PRIMARY KEY AUTOINCREMENT,
    model_id   INTEGER REFERENCES models (id),  -- null: a new model
    job_id     INTEGER REFERENCES jobs (id),    -- whose board it is, where it was begun from a job
    step       INTEGER NOT NULL,
    last_token TEXT    NOT NULL,                -- of the last act: one that is sent again after a lost answer is the same
    touched_ms INTEGER NOT NULL
) STRICT;

CREATE TABLE draft_steps (
    draft_id INTEGER NOT NULL REFERENCES drafts (id) ON DELETE CASCADE,
    step     INTEGER NOT NULL,
    draft    TEXT    NOT NULL,                  -- urgent-mend/draft/1
    PRIMARY KEY (draft_id, step)
) STRICT, WITHOUT ROWID;

-- Photographs as they were kept: upright, without the camera's own data.
CREATE TABLE photos (
    id       INTEGER PRIMARY KEY,
    jpeg     BLOB    NOT NULL,
    width    INTEGER NOT NULL,
    height   INTEGER NOT NULL,
    added_ms INTEGER NOT NULL
) STRICT;

-- Connectors of the shop's own.
CREATE TABLE connectors (
    id         INTEGER PRIMARY KEY,
    name       TEXT    NOT NULL UNIQUE,
    file       TEXT    NOT NULL,                -- urgent-mend/connector/1
    entered_ms INTEGER NOT NULL
) STRICT;

-- Layouts that were sent, until the part is chosen in them.
CREATE TABLE layouts (
    id      INTEGER PRIMARY KEY,
    name    TEXT    NOT NULL,
    file    TEXT    NOT NULL,
    sent_ms INTEGER NOT NULL
) STRICT;
