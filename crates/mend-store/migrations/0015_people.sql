-- Who works here. Nobody is ever removed: what they did keeps their name; whoever has left can't sign in.
CREATE TABLE people (
    id         INTEGER PRIMARY KEY,
    name       TEXT    NOT NULL UNIQUE COLLATE NOCASE,
    role       TEXT    NOT NULL,           -- owner, technician, trainee, counter
    level      TEXT    NOT NULL,           -- learning, trained, practised
    hours      TEXT    NOT NULL,           -- JSON: when they work; empty: while the shop is open
    passphrase TEXT    NOT NULL,           -- argon2id; empty: none yet
    pin        TEXT    NOT NULL,           -- argon2id; empty: none
    added_ms   INTEGER NOT NULL,
    left_ms    INTEGER
) STRICT;

-- Browsers that somebody has signed in at with a passphrase: a PIN is taken there, and nowhere else.
CREATE TABLE devices (
    id       INTEGER PRIMARY KEY,
    hash     TEXT    NOT NULL UNIQUE,      -- SHA-256 of what its cookie holds
    added_ms INTEGER NOT NULL
) STRICT;

CREATE TABLE sessions (
    hash      TEXT    PRIMARY KEY,         -- SHA-256 of what the cookie holds
    person_id INTEGER NOT NULL REFERENCES people (id),
    device_id INTEGER NOT NULL REFERENCES devices (id),
    begun_ms  INTEGER NOT NULL,
    ends_ms   INTEGER NOT NULL
) STRICT, WITHOUT ROWID;
CREATE INDEX sessions_of_person ON sessions (person_id);

-- Whose hand the present transaction is: it sets its one row first, and what it writes takes the name from here. None: the
-- application itself, or a shop that asks nobody for a name.
CREATE TABLE hand (
    id        INTEGER PRIMARY KEY CHECK (id = 1),
    person_id INTEGER REFERENCES people (id)
) STRICT;
INSERT INTO hand (id, person_id) VALUES (1, NULL);

ALTER TABLE jobs ADD COLUMN person_id INTEGER REFERENCES people (id);
ALTER TABLE intake ADD COLUMN person_id INTEGER REFERENCES people (id);
ALTER TABLE run_events ADD COLUMN person_id INTEGER REFERENCES people (id);
ALTER TABLE pin_marks ADD COLUMN person_id INTEGER REFERENCES people (id);
ALTER TABLE job_log ADD COLUMN person_id INTEGER REFERENCES people (id);
ALTER TABLE check_entries ADD COLUMN person_id INTEGER REFERENCES people (id);
ALTER TABLE extras ADD COLUMN person_id INTEGER REFERENCES people (id);
ALTER TABLE job_photos ADD COLUMN person_id INTEGER REFERENCES people (id);
ALTER TABLE lessons ADD COLUMN person_id INTEGER REFERENCES people (id);

CREATE TRIGGER hand_of_job AFTER INSERT ON jobs WHEN (SELECT person_id FROM hand) IS NOT NULL
    BEGIN UPDATE jobs SET person_id = (SELECT person_id FROM hand) WHERE id = new.id; END;
CREATE TRIGGER hand_of_intake AFTER INSERT ON intake WHEN (SELECT person_id FROM hand) IS NOT NULL
    BEGIN UPDATE intake SET person_id = (SELECT person_id FROM hand) WHERE job_id = new.job_id AND field = new.field; END;
CREATE TRIGGER hand_of_intake_changed AFTER UPDATE OF value ON intake
    BEGIN UPDATE intake SET person_id = (SELECT person_id FROM hand) WHERE job_id = new.job_id AND field = new.field; END;
CREATE TRIGGER hand_of_event AFTER INSERT ON run_events WHEN (SELECT person_id FROM hand) IS NOT NULL
    BEGIN UPDATE run_events SET person_id = (SELECT person_id FROM hand) WHERE id = new.id; END;
CREATE TRIGGER hand_of_mark AFTER INSERT ON pin_marks WHEN (SELECT person_id FROM hand) IS NOT NULL
    BEGIN UPDATE pin_marks SET person_id = (SELECT person_id FROM hand) WHERE id = new.id; END;
CREATE TRIGGER hand_of_log AFTER INSERT ON job_log WHEN (SELECT person_id FROM hand) IS NOT NULL
    BEGIN UPDATE job_log SET person_id = (SELECT person_id FROM hand) WHERE id = new.id; END;
CREATE TRIGGER hand_of_check AFTER INSERT ON check_entries WHEN (SELECT person_id FROM hand) IS NOT NULL
    BEGIN UPDATE check_entries SET person_id = (SELECT person_id FROM hand) WHERE id = new.id; END;
CREATE TRIGGER hand_of_extra AFTER INSERT ON extras WHEN (SELECT person_id FROM hand) IS NOT NULL
    BEGIN UPDATE extras SET person_id = (SELECT person_id FROM hand) WHERE id = new.id; END;
CREATE TRIGGER hand_of_extra_answered AFTER UPDATE OF answer ON extras
    BEGIN UPDATE extras SET person_id = (SELECT person_id FROM hand) WHERE id = new.id; END;
CREATE TRIGGER hand_of_photo AFTER INSERT ON job_photos WHEN (SELECT person_id FROM hand) IS NOT NULL
    BEGIN UPDATE job_photos SET person_id = (SELECT person_id FROM hand) WHERE id = new.id; END;
CREATE TRIGGER hand_of_lesson AFTER INSERT ON lessons WHEN (SELECT person_id FROM hand) IS NOT NULL
    BEGIN UPDATE lessons SET person_id = (SELECT person_id FROM hand) WHERE id = new.id; END;

-- Links by which somebody sets their own passphrase, once. Without a person: the first owner's.
CREATE TABLE invitations (
    hash      TEXT    PRIMARY KEY,         -- SHA-256 of what stands in the link
    person_id INTEGER REFERENCES people (id),
    ends_ms   INTEGER NOT NULL
) STRICT, WITHOUT ROWID;
