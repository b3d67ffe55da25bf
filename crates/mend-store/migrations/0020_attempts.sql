-- What somebody practised. An attempt is what it began with and what hands did: everything else is computed from the two.
CREATE TABLE attempts (
    id        INTEGER PRIMARY KEY,
    person_id INTEGER REFERENCES people (id),
    task      TEXT    NOT NULL,            -- of the course; empty: free practice, or a rehearsal
    job_id    INTEGER REFERENCES jobs (id),-- rehearsed for
    of        TEXT    NOT NULL,            -- urgent-mend/practice/1
    begun_ms  INTEGER NOT NULL,
    ticks     INTEGER NOT NULL,            -- steps so far
    ended_ms  INTEGER,
    passed    INTEGER NOT NULL,
    harms     TEXT    NOT NULL             -- JSON; empty: it goes on
) STRICT;
CREATE INDEX attempts_of_person ON attempts (person_id, id);
CREATE TRIGGER hand_of_attempt AFTER INSERT ON attempts WHEN (SELECT person_id FROM hand) IS NOT NULL
    BEGIN UPDATE attempts SET person_id = (SELECT person_id FROM hand) WHERE id = new.id; END;

CREATE TABLE attempt_events (
    attempt_id INTEGER NOT NULL REFERENCES attempts (id),
    seq        INTEGER NOT NULL,           -- as the browser counts, from 1
    tick       INTEGER NOT NULL,
    does       TEXT    NOT NULL,           -- JSON
    PRIMARY KEY (attempt_id, seq)
) STRICT, WITHOUT ROWID;
