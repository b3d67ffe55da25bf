-- Parts and consumables: what they are, as the text of their open format.
CREATE TABLE items (
    id         INTEGER PRIMARY KEY,
    name       TEXT    NOT NULL UNIQUE COLLATE NOCASE,
    file       TEXT    NOT NULL,           -- urgent-mend/item/1
    entered_ms INTEGER NOT NULL,
    retired_ms INTEGER
) STRICT;

-- Two that are taken for each other, and what tells them apart; the lower number first.
CREATE TABLE look_alikes (
    item_id    INTEGER NOT NULL REFERENCES items (id),
    other_id   INTEGER NOT NULL REFERENCES items (id),
    difference TEXT    NOT NULL,
    PRIMARY KEY (item_id, other_id)
) STRICT, WITHOUT ROWID;

-- Every move, never changed. The stock is their sum.
CREATE TABLE stock_moves (
    id        INTEGER PRIMARY KEY,
    item_id   INTEGER NOT NULL REFERENCES items (id),
    job_id    INTEGER REFERENCES jobs (id),
    kind      TEXT    NOT NULL,            -- ordered, off-order, received, harvested, reserved, released, used, returned, scrapped, counted
    quantity  REAL    NOT NULL,
    day       TEXT    NOT NULL,            -- of an order: when it comes; empty: not said
    note      TEXT    NOT NULL,
    at_ms     INTEGER NOT NULL,
    person_id INTEGER REFERENCES people (id)
) STRICT;
CREATE INDEX moves_of_item ON stock_moves (item_id, id);
CREATE INDEX moves_of_job ON stock_moves (job_id) WHERE job_id IS NOT NULL;
CREATE TRIGGER hand_of_move AFTER INSERT ON stock_moves WHEN (SELECT person_id FROM hand) IS NOT NULL
    BEGIN UPDATE stock_moves SET person_id = (SELECT person_id FROM hand) WHERE id = new.id; END;
CREATE TRIGGER move_stays BEFORE UPDATE OF item_id, job_id, kind, quantity, at_ms ON stock_moves
    BEGIN SELECT RAISE(ABORT, 'a move is never changed'); END;
CREATE TRIGGER move_not_removed BEFORE DELETE ON stock_moves BEGIN SELECT RAISE(ABORT, 'a move is never changed'); END;

-- What a job needs; of a harvest: what comes off.
CREATE TABLE job_items (
    job_id   INTEGER NOT NULL REFERENCES jobs (id),
    item_id  INTEGER NOT NULL REFERENCES items (id),
    quantity REAL    NOT NULL,
    PRIMARY KEY (job_id, item_id)
) STRICT, WITHOUT ROWID;
CREATE INDEX items_wanted ON job_items (item_id);
CREATE TRIGGER closed_job_item BEFORE INSERT ON job_items WHEN EXISTS (SELECT 1 FROM jobs WHERE id = new.job_id AND handed_over_ms IS NOT NULL)
    BEGIN SELECT RAISE(ABORT, 'job closed'); END;

-- Devices and boards that parts come off.
CREATE TABLE donors (
    id       INTEGER PRIMARY KEY,
    name     TEXT    NOT NULL,
    holds    TEXT    NOT NULL,             -- what is still on it, a line each
    job_id   INTEGER REFERENCES jobs (id), -- its harvest
    added_ms INTEGER NOT NULL,
    gone_ms  INTEGER
) STRICT;
