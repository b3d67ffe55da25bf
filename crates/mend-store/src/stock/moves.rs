//! Table `stock_moves`: what came, went and was promised. A level is the sum of the moves.

use mend_core::shop::stock::{MoveKind, StockLevel};
use rusqlite::{Row, params};

use crate::{Read, StoreError, Write};

/// A move.
#[derive(Debug, Clone, PartialEq)]
pub struct MoveRow {
    /// What happened.
    pub kind: String,
    /// Of how much.
    pub quantity: f64,
    /// The job, where it is of one.
    pub job_id: Option<i64>,
    /// Of an order: when it comes, `2026-12-04`; empty: not said.
    pub day: String,
    /// In words.
    pub note: String,
    /// When, ms since the epoch.
    pub at_ms: i64,
    /// Who did it; empty: nobody was signed in.
    pub who: String,
}

/// A move to be kept.
#[derive(Debug, Clone, PartialEq)]
pub struct NewMove {
    /// Of what.
    pub item: i64,
    /// For which job.
    pub job: Option<i64>,
    /// What happens.
    pub kind: MoveKind,
    /// Of how much.
    pub quantity: f64,
    /// Of an order: when it comes.
    pub day: String,
    /// In words.
    pub note: String,
    /// When, ms since the epoch.
    pub at_ms: i64,
}

/// The level in columns: what [`StockLevel::after`] adds up, a kind a sum.
pub(super) const LEVEL: &str = "SELECT item_id, kind, sum(quantity) FROM stock_moves";

/// A kind of a later version counts for nothing.
pub(super) fn level_of<'a>(sums: impl Iterator<Item = (&'a String, f64)>) -> StockLevel {
    StockLevel::after(sums.filter_map(|(kind, sum)| MoveKind::from_key(kind).map(|kind| (kind, sum))))
}

impl Read<'_> {
    /// What there is of an item.
    pub fn stock_level(&self, item: i64) -> Result<StockLevel, StoreError> {
        let mut sums = self.0.prepare_cached(&format!("{LEVEL} WHERE item_id = ?1 GROUP BY kind"))?;
        let rows = sums.query_map([item], |row| Ok((row.get::<_, String>(1)?, row.get::<_, f64>(2)?)))?;
        let sums: Vec<(String, f64)> = rows.collect::<Result<_, _>>()?;
        Ok(level_of(sums.iter().map(|(kind, sum)| (kind, *sum))))
    }

    /// Its moves, newest first, no more than so many.
    pub fn moves(&self, item: i64, most: u32) -> Result<Vec<MoveRow>, StoreError> {
        let sql = "SELECT m.kind, m.quantity, m.job_id, m.day, m.note, m.at_ms, ifnull(p.name, '')
                   FROM stock_moves m LEFT JOIN people p ON p.id = m.person_id WHERE m.item_id = ?1 ORDER BY m.id DESC LIMIT ?2";
        let mut statement = self.0.prepare_cached(sql)?;
        let of = |row: &Row<'_>| {
            Ok(MoveRow {
                kind: row.get(0)?,
                quantity: row.get(1)?,
                job_id: row.get(2)?,
                day: row.get(3)?,
                note: row.get(4)?,
                at_ms: row.get(5)?,
                who: row.get(6)?,
            })
        };
        let rows = statement.query_map(params![item, most], of)?;
        Ok(rows.collect::<Result<_, _>>()?)
    }

    /// What was used of each item since `from_ms`, and when its first move was: `(item, used, first move)`.
    pub fn used_since(&self, from_ms: i64) -> Result<Vec<(i64, f64, i64)>, StoreError> {
        let sql = "SELECT item_id, ifnull(sum(quantity) FILTER (WHERE kind IN ('used', 'scrapped') AND at_ms >= ?1), 0), min(at_ms)
                   FROM stock_moves GROUP BY item_id";
        let mut statement = self.0.prepare_cached(sql)?;
        let rows = statement.query_map([from_ms], |row| Ok((row.get(0)?, row.get(1)?, row.get(2)?)))?;
        Ok(rows.collect::<Result<_, _>>()?)
    }

    /// What a job's moves of a kind come to, by item.
    pub fn moved_for(&self, job: i64, kind: MoveKind) -> Result<Vec<(i64, f64)>, StoreError> {
        let sql = "SELECT item_id, sum(quantity) FROM stock_moves WHERE job_id = ?1 AND kind = ?2 GROUP BY item_id";
        let mut statement = self.0.prepare_cached(sql)?;
        let rows = statement.query_map(params![job, kind.key()], |row| Ok((row.get(0)?, row.get(1)?)))?;
        Ok(rows.collect::<Result<_, _>>()?)
    }
}

impl Write<'_> {
    /// Appends a move. Of what comes in, as much as was ordered is no longer on its way.
    pub fn add_move(&self, new: &NewMove) -> Result<(), StoreError> {
        if new.kind == MoveKind::Received {
            let came = self.read().stock_level(new.item)?.on_order.min(new.quantity);
            if came > 0.0 {
                self.put_move(&NewMove { kind: MoveKind::OffOrder, quantity: came, ..new.clone() })?;
            }
        }
        self.put_move(new)
    }

    /// Appends a move and nothing besides: one of a file.
    pub fn put_move(&self, new: &NewMove) -> Result<(), StoreError> {
        let sql = "INSERT INTO stock_moves (item_id, job_id, kind, quantity, day, note, at_ms) VALUES (?1, ?2, ?3, ?4, ?5, ?6, ?7)";
        let NewMove { item, job, kind, quantity, day, note, at_ms } = new;
        self.0.prepare_cached(sql)?.execute(params![item, job, kind.key(), quantity, day, note, at_ms])?;
        Ok(())
    }
}
