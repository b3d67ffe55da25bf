//! The schema's history. Append only: a file that has shipped is never changed.

use rusqlite_migration::{M, Migrations};

const STEPS: &[M<'_>] = &[
    M::up(include_str!("../migrations/0001_the_job.sql")).down(
        "DROP TABLE pins; DROP TABLE presses; DROP TABLE runs; DROP TABLE plans; DROP TABLE intake; DROP TABLE jobs;
         DROP TABLE stations; DROP TABLE boards;",
    ),
    M::up(include_str!("../migrations/0002_the_alloy.sql")).down("DROP TABLE ledger; DROP TABLE charges;"),
    M::up(include_str!("../migrations/0003_settings.sql")).down("DROP TABLE settings;"),
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
            .query_row("SELECT count(*) FROM sqlite_master WHERE type = 'table'", [], |row| row.get(0))
            .unwrap();
        assert_eq!(left, 0);
    }
}
