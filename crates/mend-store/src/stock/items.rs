//! Tables `items` and `look_alikes`: what a shop keeps, and how much of it there is.

use mend_core::shop::stock::StockLevel;
use rusqlite::{OptionalExtension, Row, params};

use super::moves::{LEVEL, level_of};
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

impl Write<'_> {
    /// Adds an item; none where the name is taken.
    pub fn add_item(&self, name: &str, file: &str, now_ms: i64) -> Result<Option<i64>, StoreError> {
        let sql = "INSERT INTO items (name, file, entered_ms) VALUES (?1, ?2, ?3) ON CONFLICT (name) DO NOTHING";
        let added = self.0.prepare_cached(sql)?.execute(params![name, file, now_ms])?;
        Ok((added == 1).then(|| self.0.last_insert_rowid()))
    }

    /// Changes what it is; false where the name is another's.
    pub fn change_item(&self, id: i64, name: &str, file: &str) -> Result<bool, StoreError> {
        let sql = "UPDATE OR IGNORE items SET name = ?2, file = ?3 WHERE id = ?1";
        Ok(self.0.prepare_cached(sql)?.execute(params![id, name, file])? == 1)
    }

    /// Takes it out of the lists; its moves stay.
    pub fn retire_item(&self, id: i64, now_ms: i64) -> Result<(), StoreError> {
        self.0.prepare_cached("UPDATE items SET retired_ms = ?2 WHERE id = ?1")?.execute([id, now_ms])?;
        Ok(())
    }

    /// Says what tells two apart; empty: they are not taken for each other any more.
    pub fn set_look_alike(&self, item: i64, other: i64, difference: &str) -> Result<(), StoreError> {
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
}
