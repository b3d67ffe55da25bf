//! Where a device's screws, cables and hazards are: pages of photographs or empty outlines, and the things on them in the order in
//! which they come out.

use serde::{Deserialize, Serialize};

use super::item::ItemKind;

/// More pages or things than this are a slip.
pub const MOST_PAGES: usize = 12;
/// The same of things.
pub const MOST_ITEMS: usize = 400;
/// Numbers of things end here.
pub const MOST_ID: u32 = 1_000_000;

/// A side of the device, or a layer of it.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct MapPage {
    /// What it shows: `back`, `under the plate`.
    pub name: String,
    /// A photograph, by its number; none: an empty outline.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub photo: Option<i64>,
}

/// A thing on a page.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct OpeningItem {
    /// Its number on the map; never given to another.
    pub id: u32,
    /// On which page, from 0.
    pub page: usize,
    /// Where on it: 0-1 from the left and from the top.
    pub at: [f64; 2],
    /// What it is.
    pub what: ItemKind,
    /// What is to be said of it: a torque in words, which side, a knack.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    pub note: String,
}

/// The map of a device model.
#[derive(Debug, Clone, PartialEq, Default, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct OpeningMap {
    /// Its pages, outermost first.
    pub pages: Vec<MapPage>,
    /// What is on them, in the order in which it comes out.
    pub items: Vec<OpeningItem>,
    /// The highest number that was ever given: a thing that is removed keeps its own, or what was tapped of it would be another's.
    #[serde(default)]
    pub last_id: u32,
}

/// What is changed on a map.
#[derive(Debug, Clone, PartialEq)]
pub enum MapEdit {
    /// A page more.
    AddPage(MapPage),
    /// A thing more, last in order; its number is given to it.
    Add { page: usize, at: [f64; 2], what: ItemKind, note: String },
    /// A thing less.
    Remove(u32),
    /// A thing before another, or last.
    Move { id: u32, before: Option<u32> },
}

/// Why a map can't be changed so.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum NoEdit {
    /// There are as many as there may be.
    Full,
    /// There is no such page or thing.
    NotThere,
    /// A place that is not on its page.
    Outside,
}

impl OpeningMap {
    /// A map with one empty page.
    pub fn empty() -> Self {
        Self { pages: vec![MapPage { name: "outside".to_owned(), photo: None }], items: Vec::new(), last_id: 0 }
    }

    /// A thing by its number.
    pub fn item(&self, id: u32) -> Option<&OpeningItem> {
        self.items.iter().find(|item| item.id == id)
    }

    /// The number of the next thing.
    fn next_id(&self) -> u32 {
        self.items.iter().map(|item| item.id).fold(self.last_id, u32::max) + 1
    }

    /// The same map, changed.
    ///
    /// ```
    /// use mend_core::opening::{item::ItemKind, map::{MapEdit, OpeningMap}};
    /// let add = MapEdit::Add { page: 0, at: [0.2, 0.8], what: ItemKind::Clip, note: String::new() };
    /// let map = OpeningMap::empty().edited(&add).expect("there is room");
    /// assert_eq!((map.items[0].id, map.items.len()), (1, 1));
    /// ```
    pub fn edited(&self, edit: &MapEdit) -> Result<Self, NoEdit> {
        let mut map = self.clone();
        match edit {
            MapEdit::AddPage(_) if map.pages.len() >= MOST_PAGES => return Err(NoEdit::Full),
            MapEdit::AddPage(page) => map.pages.push(page.clone()),
            MapEdit::Add { .. } if map.items.len() >= MOST_ITEMS || map.next_id() > MOST_ID => {
                return Err(NoEdit::Full);
            }
            MapEdit::Add { page, at, what, note } => {
                if *page >= map.pages.len() {
                    return Err(NoEdit::NotThere);
                }
                if !at.iter().all(|part| (0.0..=1.0).contains(part)) {
                    return Err(NoEdit::Outside);
                }
                let id = map.next_id();
                map.items.push(OpeningItem { id, page: *page, at: *at, what: what.clone(), note: note.clone() });
            }
            MapEdit::Remove(id) => {
                map.item(*id).ok_or(NoEdit::NotThere)?;
                map.last_id = map.next_id() - 1;
                map.items.retain(|item| item.id != *id);
            }
            MapEdit::Move { id, before } => map.move_item(*id, *before)?,
        }
        Ok(map)
    }

    fn move_item(&mut self, id: u32, before: Option<u32>) -> Result<(), NoEdit> {
        let from = self.items.iter().position(|item| item.id == id).ok_or(NoEdit::NotThere)?;
        let item = self.items.remove(from);
        let to = match before {
            Some(other) => self.items.iter().position(|item| item.id == other).ok_or(NoEdit::NotThere)?,
            None => self.items.len(),
        };
        self.items.insert(to, item);
        Ok(())
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    fn clip() -> MapEdit {
        MapEdit::Add { page: 0, at: [0.5, 0.5], what: ItemKind::Clip, note: String::new() }
    }

    #[test]
    fn a_thing_keeps_its_number_wherever_it_is_moved() {
        let map = [clip(), clip(), clip(), MapEdit::Move { id: 3, before: Some(1) }, MapEdit::Remove(2), clip()];
        let map = map.iter().fold(OpeningMap::empty(), |map, edit| map.edited(edit).expect("it can be"));
        assert_eq!(map.items.iter().map(|item| item.id).collect::<Vec<_>>(), [3, 1, 4]);
    }

    #[test]
    fn the_number_of_a_thing_that_was_removed_is_given_to_no_other() {
        let map = [clip(), clip(), MapEdit::Remove(2), MapEdit::Remove(1), clip()];
        let map = map.iter().fold(OpeningMap::empty(), |map, edit| map.edited(edit).expect("it can be"));
        assert_eq!(map.items[0].id, 3, "what was tapped of 1 and 2 is not of it");
        let full = OpeningMap { last_id: MOST_ID, ..map };
        assert_eq!(full.edited(&clip()), Err(NoEdit::Full));
    }

    #[test]
    fn what_can_not_be_changes_nothing() {
        let map = OpeningMap::empty();
        let beyond = MapEdit::Add { page: 0, at: [1.2, 0.0], what: ItemKind::Clip, note: String::new() };
        let page = MapEdit::Add { page: 4, at: [0.2, 0.0], what: ItemKind::Clip, note: String::new() };
        assert_eq!(map.edited(&beyond), Err(NoEdit::Outside));
        assert_eq!(map.edited(&page), Err(NoEdit::NotThere));
        assert_eq!(map.edited(&MapEdit::Remove(7)), Err(NoEdit::NotThere));
        assert_eq!(map.edited(&MapEdit::Move { id: 1, before: None }), Err(NoEdit::NotThere));
    }
}
