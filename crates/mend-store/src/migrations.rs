//! The schema's history. Append only: a file that has shipped is never changed.

use rusqlite_migration::{M, Migrations};

const STEPS: &[M<'_>] = &[
    M::up(include_str!("../migrations/0001_the_job.sql")).down(
        "DROP TABLE pins; DROP TABLE presses; DROP TABLE runs; DROP TABLE plans; DROP TABLE intake; DROP TABLE jobs;
         DROP TABLE stations; DROP TABLE boards;",
    ),
    M::up(include_str!("../migrations/0002_the_alloy.sql")).down("DROP TABLE ledger; DROP TABLE charges;"),
    M::up(include_str!("../migrations/0003_settings.sql")).down("DROP TABLE settings;"),
    M::up(include_str!("../migrations/0004_board_versions.sql")).down(
        "CREATE TABLE old (id INTEGER PRIMARY KEY, name TEXT NOT NULL UNIQUE, file TEXT NOT NULL,
             entered_ms INTEGER NOT NULL) STRICT;
         INSERT INTO old SELECT b.id, m.name, b.file, b.entered_ms FROM boards b JOIN models m ON m.id = b.model_id
             WHERE b.version = 1;
         DROP TABLE boards; DROP TABLE models; ALTER TABLE old RENAME TO boards;",
    ),
    M::up(include_str!("../migrations/0005_drafts.sql")).down(
        "DROP TABLE layouts; DROP TABLE connectors; DROP TABLE photos; DROP TABLE draft_steps; DROP TABLE drafts;",
    ),
    M::up(include_str!("../migrations/0006_methods.sql")).down("DROP TABLE variants; DROP TABLE means;"),
    M::up(include_str!("../migrations/0007_a_shop_to_live_in.sql")).down(include_str!("../migrations/0007_down.sql")),
    M::up(include_str!("../migrations/0008_the_fit.sql"))
        .down("DELETE FROM plans WHERE fits; ALTER TABLE plans DROP COLUMN fits; DROP TABLE fit_settings;"),
    M::up(include_str!("../migrations/0009_lessons.sql")).down("DROP TABLE measuring; DROP TABLE lessons;"),
    M::up(include_str!("../migrations/0010_watched.sql"))
        .down("DROP TABLE run_readings; DROP TABLE instruments; DROP TABLE to_learn; DROP INDEX lessons_of_job; ALTER TABLE lessons DROP COLUMN job_id; DROP TABLE run_states;"),
    M::up(include_str!("../migrations/0011_taped_on.sql")).down("ALTER TABLE runs DROP COLUMN taped_on;"),
    M::up(include_str!("../migrations/0012_checks.sql")).down("DROP TABLE job_photos; DROP TABLE extras; DROP TABLE check_entries;"),
    M::up(include_str!("../migrations/0013_opening.sql"))
        .down("DROP TABLE job_openings; DROP TABLE opening_maps; DROP TABLE opening_models;"),
    M::up(include_str!("../migrations/0014_kinds.sql")).down("ALTER TABLE extras DROP COLUMN photo_id;"),
    M::up(include_str!("../migrations/0015_people.sql")).down(include_str!("../migrations/0015_down.sql")),
    M::up(include_str!("../migrations/0016_stock.sql"))
        .down("DROP TABLE donors; DROP TABLE job_items; DROP TABLE stock_moves; DROP TABLE look_alikes; DROP TABLE items;"),
    M::up(include_str!("../migrations/0017_quotes.sql"))
        .down("ALTER TABLE jobs DROP COLUMN return_of; DROP TABLE task_pins; DROP TABLE quotes; DROP TABLE job_times;"),
    M::up(include_str!("../migrations/0018_outcomes.sql")).down("DROP INDEX returns_of_job; DROP TABLE job_outcomes;"),
    M::up(include_str!("../migrations/0019_waits.sql")).down("DROP TABLE job_waits;"),
    M::up(include_str!("../migrations/0020_attempts.sql")).down("DROP TABLE attempt_events; DROP TABLE attempts;"),
];

/// All steps, in order.
pub(crate) const MIGRATIONS: Migrations<'static> = Migrations::from_slice(STEPS);

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn every_step_goes_up_and_down_again() {
        assert!(MIGRATIONS.validate().is_ok());
        let mut connection = rusqlite::Connection::open_in_memory().unwrap();
        MIGRATIONS.to_latest(&mut connection).unwrap();
        MIGRATIONS.to_version(&mut connection, 0).unwrap();
        let left: i64 = connection
            .query_row(
                "SELECT count(*) FROM sqlite_master WHERE type = 'table' AND name NOT LIKE 'sqlite_%'",
                [],
                |row| row.get(0),
            )
            .unwrap();
        assert_eq!(left, 0);
    }

    #[test]
    fn boards_become_first_versions_and_their_jobs_keep_them() {
        let mut connection = rusqlite::Connection::open_in_memory().unwrap();
        connection.pragma_update(None, "foreign_keys", false).unwrap();
        MIGRATIONS.to_version(&mut connection, 3).unwrap();
        let old = "INSERT INTO boards VALUES (4, 'Quay', 'a', 1), (9, 'Brook', 'b', 2);
                   INSERT INTO jobs VALUES (1, 1, 9, NULL);";
        connection.execute_batch(old).unwrap();
        MIGRATIONS.to_latest(&mut connection).unwrap();
        let sql = "SELECT m.name, b.version FROM jobs j JOIN boards b ON b.id = j.board_id JOIN models m ON m.id = b.model_id";
        let row: (String, i64) = connection.query_row(sql, [], |row| Ok((row.get(0)?, row.get(1)?))).unwrap();
        assert_eq!(row, ("Brook".to_owned(), 1));
        let broken = connection.prepare("PRAGMA foreign_key_check").unwrap().exists([]).unwrap();
        assert!(!broken);
    }

    #[test]
    fn presses_and_entries_of_the_ledger_become_one_list_of_events_and_go_back() {
        let mut connection = rusqlite::Connection::open_in_memory().unwrap();
        connection.pragma_update(None, "foreign_keys", false).unwrap();
        MIGRATIONS.to_version(&mut connection, 6).unwrap();
        let old = "INSERT INTO jobs VALUES (1, 1, NULL, 9000); INSERT INTO runs VALUES (7, 1, 1, 1000);
                   INSERT INTO presses (run_id, press, at_ms, token) VALUES (7, 'go', 3000, 'a'), (7, 'back', 5000, 'b');
                   INSERT INTO ledger (run_id, act, row_name, reason, at_ms, token) VALUES (7, 'wicked', 'A', '', 4000, 'a');
                   INSERT INTO stations (name, file) VALUES ('Gull', '{}');";
        connection.execute_batch(old).unwrap();
        MIGRATIONS.to_latest(&mut connection).unwrap();
        let events = |connection: &rusqlite::Connection| -> Vec<(String, i64)> {
            let mut all = connection.prepare("SELECT kind, at_ms FROM run_events ORDER BY id").unwrap();
            all.query_map([], |row| Ok((row.get(0)?, row.get(1)?))).unwrap().map(Result::unwrap).collect()
        };
        let wanted = [("go", 2000), ("wicked", 3000), ("undo", 4000)].map(|(kind, at)| (kind.to_owned(), at));
        assert_eq!(events(&connection), wanted);
        let named: i64 = connection
            .query_row("SELECT station_id FROM station_names WHERE name = 'Gull'", [], |row| row.get(0))
            .unwrap();
        assert_eq!(named, 1);
        MIGRATIONS.to_version(&mut connection, 6).unwrap();
        let presses: i64 = connection.query_row("SELECT count(*) FROM presses", [], |row| row.get(0)).unwrap();
        MIGRATIONS.to_latest(&mut connection).unwrap();
        assert_eq!((presses, events(&connection)), (2, wanted.to_vec()));
    }
}
