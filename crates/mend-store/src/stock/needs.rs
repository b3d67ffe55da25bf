//! Table `job_items`: what jobs need of what is kept, what is promised to them, and who waits.

use mend_core::shop::stock::MoveKind;
use rusqlite::{Row, params};

use super::moves::NewMove;
use crate::{Read, StoreError, Write};

/// What a job needs of an item.
#[derive(Debug, Clone, PartialEq)]
pub struct NeedRow {
    /// The item.
    pub item: i64,
    /// Its name.
    pub name: String,
    /// The job.
    pub job: i64,
    /// How much.
    pub wanted: f64,
    /// Promised to it.
    pub reserved: f64,
    /// Used by it.
    pub used: f64,
    /// When the item's newest order comes; empty: nothing is on its way, or no day was said.
    pub day: String,
}

impl NeedRow {
    /// What it still lacks.
    pub fn lacks(&self) -> f64 {
        (self.wanted - self.reserved - self.used).max(0.0)
    }

    /// Does the job wait for it? A thousandth of a unit is lost in adding.
    pub fn waits(&self) -> bool {
        self.lacks() > 1e-3
    }
}

/// What came of promising a part to a job.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum ReserveOutcome {
    /// It lies ready.
    Ready,
    /// Not enough is free: the job waits.
    Waits,
}

const NEED: &str = "
    SELECT w.item_id, i.name, w.job_id, w.quantity,
        ifnull((SELECT sum(CASE kind WHEN 'reserved' THEN quantity WHEN 'released' THEN -quantity ELSE 0 END)
            FROM stock_moves m WHERE m.job_id = w.job_id AND m.item_id = w.item_id), 0),
        ifnull((SELECT sum(quantity) FROM stock_moves m WHERE m.job_id = w.job_id AND m.item_id = w.item_id AND kind = 'used'), 0),
        ifnull((SELECT day FROM stock_moves m WHERE m.item_id = w.item_id AND kind = 'ordered'
            AND (SELECT sum(CASE kind WHEN 'ordered' THEN quantity WHEN 'off-order' THEN -quantity ELSE 0 END)
                FROM stock_moves WHERE item_id = w.item_id) > 0 ORDER BY id DESC LIMIT 1), '')
    FROM job_items w JOIN items i ON i.id = w.item_id";

fn need(row: &Row<'_>) -> rusqlite::Result<NeedRow> {
    Ok(NeedRow {
        item: row.get(0)?,
        name: row.get(1)?,
        job: row.get(2)?,
        wanted: row.get(3)?,
        reserved: row.get(4)?,
        used: row.get(5)?,
        day: row.get(6)?,
    })
}

impl Read<'_> {
    /// What a job needs.
    pub fn needs(&self, job: i64) -> Result<Vec<NeedRow>, StoreError> {
        let mut statement = self.0.prepare_cached(&format!("{NEED} WHERE w.job_id = ?1 ORDER BY i.name"))?;
        let rows = statement.query_map([job], need)?;
        Ok(rows.collect::<Result<_, _>>()?)
    }

    /// What open jobs that fit a part need of an item, in the order of their coming; of all items where none is named.
    pub fn open_needs(&self, item: Option<i64>) -> Result<Vec<NeedRow>, StoreError> {
        let sql = format!(
            "{NEED} JOIN jobs j ON j.id = w.job_id WHERE j.handed_over_ms IS NULL AND (?1 IS NULL OR w.item_id = ?1)
             AND NOT EXISTS (SELECT 1 FROM intake k WHERE k.job_id = w.job_id AND k.field = 'kind' AND k.value = 'harvest')
             ORDER BY w.job_id"
        );
        let mut statement = self.0.prepare_cached(&sql)?;
        let rows = statement.query_map([item], need)?;
        Ok(rows.collect::<Result<_, _>>()?)
    }
}

impl Write<'_> {
    /// What a job needs of an item.
    pub fn need_item(&self, job: i64, item: i64, quantity: f64) -> Result<(), StoreError> {
        let sql = "INSERT INTO job_items (job_id, item_id, quantity) VALUES (?1, ?2, ?3)
                   ON CONFLICT (job_id, item_id) DO UPDATE SET quantity = excluded.quantity";
        self.0.prepare_cached(sql)?.execute(params![job, item, quantity])?;
        Ok(())
    }

    /// The same of a job that may be closed, from a file.
    pub fn put_need(&self, job: i64, item: i64, quantity: f64) -> Result<(), StoreError> {
        self.while_open(job, |write| write.need_item(job, item, quantity))
    }

    /// It needs none of it after all; what was promised is free again.
    pub fn drop_need(&self, job: i64, item: i64, at_ms: i64) -> Result<(), StoreError> {
        self.release(job, at_ms, Some(item))?;
        self.0.prepare_cached("DELETE FROM job_items WHERE job_id = ?1 AND item_id = ?2")?.execute([job, item])?;
        Ok(())
    }

    /// Promises a job what it still lacks of an item, where all of that is free. The transaction sees every promise before it: of
    /// two who take the last one the second waits.
    pub fn reserve(&self, need: &NeedRow, at_ms: i64) -> Result<ReserveOutcome, StoreError> {
        if !need.waits() {
            return Ok(ReserveOutcome::Ready);
        }
        if !self.read().stock_level(need.item)?.spares(need.lacks()) {
            return Ok(ReserveOutcome::Waits);
        }
        self.add_move(&job_move(need, MoveKind::Reserved, need.lacks(), at_ms))?;
        Ok(ReserveOutcome::Ready)
    }

    /// Promises what is free of an item to the jobs that wait for it, the oldest first; answers them.
    pub fn reserve_for_waiting(&self, item: i64, at_ms: i64) -> Result<Vec<i64>, StoreError> {
        let mut served = Vec::new();
        for need in self.read().open_needs(Some(item))? {
            if need.waits() && self.reserve(&need, at_ms)? == ReserveOutcome::Ready {
                served.push(need.job);
            }
        }
        Ok(served)
    }

    /// What was promised to a job is used.
    pub fn use_reserved(&self, job: i64, at_ms: i64) -> Result<(), StoreError> {
        for need in self.read().needs(job)?.iter().filter(|need| need.reserved > 1e-3) {
            self.add_move(&job_move(need, MoveKind::Released, need.reserved, at_ms))?;
            self.add_move(&job_move(need, MoveKind::Used, need.reserved, at_ms))?;
        }
        Ok(())
    }

    /// What was promised to a job is free again, of one item or of all.
    pub fn release(&self, job: i64, at_ms: i64, of: Option<i64>) -> Result<(), StoreError> {
        let needs = self.read().needs(job)?;
        for need in needs.iter().filter(|need| need.reserved > 1e-3 && of.is_none_or(|item| item == need.item)) {
            self.add_move(&job_move(need, MoveKind::Released, need.reserved, at_ms))?;
        }
        Ok(())
    }
}

fn job_move(need: &NeedRow, kind: MoveKind, quantity: f64, at_ms: i64) -> NewMove {
    let (day, note) = (String::new(), String::new());
    NewMove { item: need.item, job: Some(need.job), kind, quantity, day, note, at_ms }
}

#[cfg(test)]
#[allow(clippy::unwrap_used)]
mod tests {
    use super::*;
    use crate::Store;

    fn received(item: i64, quantity: f64) -> NewMove {
        let (day, note) = (String::new(), String::new());
        NewMove { item, job: None, kind: MoveKind::Received, quantity, day, note, at_ms: 1 }
    }

    async fn shop() -> (tempfile::TempDir, Store, i64, [i64; 2]) {
        let folder = tempfile::tempdir().unwrap();
        let store = Store::open(&folder.path().join("shop.db")).unwrap();
        let made = store.write(|w| Ok((w.add_item("Port", "{}", 0)?.unwrap(), [w.add_job(0)?, w.add_job(0)?])));
        let (item, jobs) = made.await.unwrap();
        (folder, store, item, jobs)
    }

    async fn wants(store: &Store, job: i64, item: i64) -> ReserveOutcome {
        let asked = store.write(move |w| {
            w.need_item(job, item, 1.0)?;
            let need = w.read().needs(job)?.remove(0);
            w.reserve(&need, 2)
        });
        asked.await.unwrap()
    }

    #[tokio::test]
    async fn of_two_who_take_the_last_one_the_second_waits_and_has_the_next() {
        let (_folder, store, item, [one, other]) = shop().await;
        store.write(move |w| w.add_move(&received(item, 1.0))).await.unwrap();
        let (first, second) = tokio::join!(wants(&store, one, item), wants(&store, other, item));
        let mut outcomes = [first, second];
        outcomes.sort_by_key(|outcome| *outcome == ReserveOutcome::Waits);
        assert_eq!(outcomes, [ReserveOutcome::Ready, ReserveOutcome::Waits]);
        let served = store
            .write(move |w| {
                w.add_move(&received(item, 1.0))?;
                w.reserve_for_waiting(item, 3)
            })
            .await
            .unwrap();
        assert_eq!(served.len(), 1);
        let level = store.read(move |r| r.stock_level(item)).await.unwrap();
        assert_eq!((level.on_hand, level.reserved, level.free()), (2.0, 2.0, 0.0));
    }

    #[tokio::test]
    async fn what_was_promised_is_used_or_free_again() {
        let (_folder, store, item, [one, other]) = shop().await;
        store.write(move |w| w.add_move(&received(item, 2.0))).await.unwrap();
        wants(&store, one, item).await;
        wants(&store, other, item).await;
        store.write(move |w| w.use_reserved(one, 3)).await.unwrap();
        store.write(move |w| w.drop_need(other, item, 4)).await.unwrap();
        let level = store.read(move |r| r.stock_level(item)).await.unwrap();
        assert_eq!((level.on_hand, level.reserved), (1.0, 0.0));
        let used = store.read(|r| r.used_since(0)).await.unwrap();
        assert_eq!(used, [(item, 1.0, 1)]);
    }

    #[tokio::test]
    async fn a_move_is_never_changed_nor_removed() {
        let (_folder, store, item, _) = shop().await;
        store.write(move |w| w.add_move(&received(item, 2.0))).await.unwrap();
        for sql in ["UPDATE stock_moves SET quantity = 9", "DELETE FROM stock_moves"] {
            assert!(store.write(move |w| Ok(w.0.execute(sql, [])?)).await.is_err(), "{sql}");
        }
    }
}
