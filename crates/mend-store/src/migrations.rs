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
}
