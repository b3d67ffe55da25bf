//! Tables `items`, `look_alikes`, `stock_moves` and `job_items`.

use mend_core::shop::stock::{MoveKind, StockLevel};
use rusqlite::{OptionalExtension, Row, params};

use crate::{Read, StoreError, Write};

/// A part or a consumable.
#[derive(Debug, Clone, PartialEq)]
pub struct ItemRow {
    /// Its number.
    pub id: i64,
    /// Its name.
    pub name: String,
    /// What it is, `urgent-mend/item/1`.
    pub file: String,
    /// What there is of it.
    pub level: StockLevel,
}

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

/// Two that are taken for each other.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct LookAlikeRow {
    /// The other.
    pub other: i64,
    /// Its name.
    pub name: String,
    /// What tells them apart.
    pub difference: String,
}

/// What came of promising a part to a job.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum ReserveOutcome {
    /// It lies ready.
    Ready,
    /// Not enough is free: the job waits.
    Waits,
}

/// The level in columns: what [`StockLevel::after`] adds up, a kind a sum.
const LEVEL: &str = "SELECT item_id, kind, sum(quantity) FROM stock_moves";

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
    /// All items that are not retired, by name.
    pub fn items(&self) -> Result<Vec<ItemRow>, StoreError> {
        let mut sums = self.0.prepare_cached(&format!("{LEVEL} GROUP BY item_id, kind"))?;
        let rows =
            sums.query_map([], |row| Ok((row.get::<_, i64>(0)?, row.get::<_, String>(1)?, row.get::<_, f64>(2)?)))?;
        let sums: Vec<(i64, String, f64)> = rows.collect::<Result<_, _>>()?;
        let level = |id: i64| level_of(sums.iter().filter(|(item, ..)| *item == id).map(|(_, kind, sum)| (kind, *sum)));
        let sql = "SELECT id, name, file FROM items WHERE retired_ms IS NULL ORDER BY name";
        let mut statement = self.0.prepare_cached(sql)?;
        let rows = statement.query_map([], |row| {
            let id = row.get(0)?;
            Ok(ItemRow { id, name: row.get(1)?, file: row.get(2)?, level: level(id) })
        })?;
        Ok(rows.collect::<Result<_, _>>()?)
    }

    /// All items, retired ones too, in the order of their coming; with when they were retired.
    pub fn all_items(&self) -> Result<Vec<(ItemRow, Option<i64>)>, StoreError> {
        let mut statement = self.0.prepare_cached("SELECT id, retired_ms FROM items ORDER BY id")?;
        let rows = statement.query_map([], |row| Ok((row.get(0)?, row.get(1)?)))?;
        let ids: Vec<(i64, Option<i64>)> = rows.collect::<Result<_, _>>()?;
        let found = ids.into_iter().map(|(id, retired)| Ok(self.item(id)?.map(|row| (row, retired))));
        Ok(found.collect::<Result<Vec<_>, StoreError>>()?.into_iter().flatten().collect())
    }

    /// One of them.
    pub fn item(&self, id: i64) -> Result<Option<ItemRow>, StoreError> {
        let level = self.stock_level(id)?;
        let mut statement = self.0.prepare_cached("SELECT id, name, file FROM items WHERE id = ?1")?;
        let of = |row: &Row<'_>| Ok(ItemRow { id: row.get(0)?, name: row.get(1)?, file: row.get(2)?, level });
        Ok(statement.query_row([id], of).optional()?)
    }

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

    /// What an item is taken for.
    pub fn look_alikes(&self, item: i64) -> Result<Vec<LookAlikeRow>, StoreError> {
        let sql = "SELECT i.id, i.name, l.difference FROM look_alikes l
                   JOIN items i ON i.id = CASE l.item_id WHEN ?1 THEN l.other_id ELSE l.item_id END
                   WHERE ?1 IN (l.item_id, l.other_id) ORDER BY i.name";
        let mut statement = self.0.prepare_cached(sql)?;
        let of = |row: &Row<'_>| Ok(LookAlikeRow { other: row.get(0)?, name: row.get(1)?, difference: row.get(2)? });
        let rows = statement.query_map([item], of)?;
        Ok(rows.collect::<Result<_, _>>()?)
    }
}

/// A kind of a later version counts for nothing.
fn level_of<'a>(sums: impl Iterator<Item = (&'a String, f64)>) -> StockLevel {
    StockLevel::after(sums.filter_map(|(kind, sum)| MoveKind::from_key(kind).map(|kind| (kind, sum))))
}

impl Write<'_> {
    /// Adds an item; none where the name is taken.
    pub fn add_item(&self, (name, file): (&str, &str), now_ms: i64) -> Result<Option<i64>, StoreError> {
        let sql = "INSERT INTO items (name, file, entered_ms) VALUES (?1, ?2, ?3) ON CONFLICT (name) DO NOTHING";
        let added = self.0.prepare_cached(sql)?.execute(params![name, file, now_ms])?;
        Ok((added == 1).then(|| self.0.last_insert_rowid()))
    }

    /// Changes what it is; false where the name is another's.
    pub fn change_item(&self, id: i64, (name, file): (&str, &str)) -> Result<bool, StoreError> {
        let sql = "UPDATE OR IGNORE items SET name = ?2, file = ?3 WHERE id = ?1";
        Ok(self.0.prepare_cached(sql)?.execute(params![id, name, file])? == 1)
    }

    /// Takes it out of the lists; its moves stay.
    pub fn retire_item(&self, id: i64, now_ms: i64) -> Result<(), StoreError> {
        self.0.prepare_cached("UPDATE items SET retired_ms = ?2 WHERE id = ?1")?.execute([id, now_ms])?;
        Ok(())
    }

    /// Says what tells two apart; empty: they are not taken for each other any more.
    pub fn set_look_alike(&self, (item, other): (i64, i64), difference: &str) -> Result<(), StoreError> {
        let (low, high) = (item.min(other), item.max(other));
        if difference.is_empty() {
            let sql = "DELETE FROM look_alikes WHERE item_id = ?1 AND other_id = ?2";
            self.0.prepare_cached(sql)?.execute([low, high])?;
            return Ok(());
        }
        let sql = "INSERT INTO look_alikes (item_id, other_id, difference) VALUES (?1, ?2, ?3)
                   ON CONFLICT (item_id, other_id) DO UPDATE SET difference = excluded.difference";
        self.0.prepare_cached(sql)?.execute(params![low, high, difference])?;
        Ok(())
    }

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

    /// What a job needs of an item.
    pub fn need_item(&self, job: i64, (item, quantity): (i64, f64)) -> Result<(), StoreError> {
        let sql = "INSERT INTO job_items (job_id, item_id, quantity) VALUES (?1, ?2, ?3)
                   ON CONFLICT (job_id, item_id) DO UPDATE SET quantity = excluded.quantity";
        self.0.prepare_cached(sql)?.execute(params![job, item, quantity])?;
        Ok(())
    }

    /// The same of a job that may be closed, from a file.
    pub fn put_need(&self, job: i64, need: (i64, f64)) -> Result<(), StoreError> {
        self.while_open(job, |write| write.need_item(job, need))
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
        self.add_move(&job_move(need, MoveKind::Reserved, (need.lacks(), at_ms)))?;
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
            self.add_move(&job_move(need, MoveKind::Released, (need.reserved, at_ms)))?;
            self.add_move(&job_move(need, MoveKind::Used, (need.reserved, at_ms)))?;
        }
        Ok(())
    }

    /// What was promised to a job is free again, of one item or of all.
    pub fn release(&self, job: i64, at_ms: i64, of: Option<i64>) -> Result<(), StoreError> {
        let needs = self.read().needs(job)?;
        for need in needs.iter().filter(|need| need.reserved > 1e-3 && of.is_none_or(|item| item == need.item)) {
            self.add_move(&job_move(need, MoveKind::Released, (need.reserved, at_ms)))?;
        }
        Ok(())
    }
}

fn job_move(need: &NeedRow, kind: MoveKind, (quantity, at_ms): (f64, i64)) -> NewMove {
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
        let made = store.write(|w| Ok((w.add_item(("Port", "{}"), 0)?.unwrap(), [w.add_job(0)?, w.add_job(0)?])));
        let (item, jobs) = made.await.unwrap();
        (folder, store, item, jobs)
    }

    async fn wants(store: &Store, (job, item): (i64, i64)) -> ReserveOutcome {
        let asked = store.write(move |w| {
            w.need_item(job, (item, 1.0))?;
            let need = w.read().needs(job)?.remove(0);
            w.reserve(&need, 2)
        });
        asked.await.unwrap()
    }

    #[tokio::test]
    async fn of_two_who_take_the_last_one_the_second_waits_and_has_the_next() {
        let (_folder, store, item, [one, other]) = shop().await;
        store.write(move |w| w.add_move(&received(item, 1.0))).await.unwrap();
        let (first, second) = tokio::join!(wants(&store, (one, item)), wants(&store, (other, item)));
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
        wants(&store, (one, item)).await;
        wants(&store, (other, item)).await;
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
