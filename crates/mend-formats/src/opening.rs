//! The opening map of a device model, `urgent-mend/opening/1`.

use mend_core::finding::Finding;
use mend_core::finding::problem::ValueProblem;
use mend_core::opening::item::{FOR_S, ItemKind, LENGTH_MM, THREAD_MM, WARM_C};
use mend_core::opening::map::{MOST_ID, MOST_ITEMS, MOST_PAGES, MapPage, OpeningItem, OpeningMap};
use mend_core::units::Unit;
use serde::{Deserialize, Serialize};

use crate::reading::{self, Accepted};

/// The format's name.
pub const FORMAT: &str = "urgent-mend/opening/1";
pub(crate) const ACCEPTED: Accepted = Accepted { written: FORMAT, older: &[] };
const RULE: &str = "opening_file";
/// Longest name of a device, a page or a colour, and longest note, characters.
const LONGEST: usize = 80;
const LONGEST_NOTE: usize = 200;

/// The file as it is written.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct OpeningFile {
    /// Always `urgent-mend/opening/1`.
    pub format: String,
    /// The device model.
    pub device: String,
    /// Its pages, outermost first.
    pub pages: Vec<MapPage>,
    /// What is on them, in the order in which it comes out.
    pub items: Vec<OpeningItem>,
    /// The highest number that was ever given to one.
    #[serde(default, skip_serializing_if = "is_none_yet")]
    pub last_id: u32,
}

#[allow(clippy::trivially_copy_pass_by_ref, reason = "serde hands a reference")]
fn is_none_yet(id: &u32) -> bool {
    *id == 0
}

impl OpeningFile {
    /// A map under a device's name.
    pub fn new(device: &str, map: OpeningMap) -> Self {
        let OpeningMap { pages, items, last_id } = map;
        Self { format: FORMAT.to_owned(), device: device.to_owned(), pages, items, last_id }
    }

    /// The map.
    pub fn into_map(self) -> OpeningMap {
        OpeningMap { pages: self.pages, items: self.items, last_id: self.last_id }
    }

    fn findings(&self) -> Vec<Finding> {
        let mut found = Vec::new();
        let mut want = |holds: bool, place: String, what: &str| {
            if !holds {
                found.push(Finding::written(RULE, place, what));
            }
        };
        let named = |text: &str| (1..=LONGEST).contains(&text.trim().chars().count());
        want(named(&self.device), "device".to_owned(), "is wanted, up to 80 characters");
        want((1..=MOST_PAGES).contains(&self.pages.len()), "pages".to_owned(), "one to twelve of them");
        want(self.items.len() <= MOST_ITEMS, "items".to_owned(), "up to 400 of them");
        want(self.last_id <= MOST_ID, "last_id".to_owned(), "a number up to 1000000");
        for (k, page) in self.pages.iter().enumerate() {
            want(named(&page.name), format!("pages[{k}].name"), "is wanted, up to 80 characters");
        }
        for (k, item) in self.items.iter().enumerate() {
            let at = |field: &str| format!("items[{k}].{field}");
            want(item.page < self.pages.len(), at("page"), "is no page of the map");
            want(item.at.iter().all(|part| (0.0..=1.0).contains(part)), at("at"), "lies outside its page");
            want(item.note.chars().count() <= LONGEST_NOTE, at("note"), "up to 200 characters");
            want((1..=MOST_ID).contains(&item.id), at("id"), "a number from 1 to 1000000");
            let twice = self.items[..k].iter().any(|other| other.id == item.id);
            want(!twice, at("id"), "is the number of another thing too");
        }
        for (k, item) in self.items.iter().enumerate() {
            found.extend(
                kind_findings(&item.what)
                    .into_iter()
                    .map(|f| Finding { place: format!("items[{k}].{}", f.place), ..f }),
            );
        }
        found
    }
}

/// What can't be of a thing, whoever has entered it.
pub fn kind_findings(what: &ItemKind) -> Vec<Finding> {
    let within = |place: &str, (value, unit): (f64, Unit), range: (f64, f64)| {
        ValueProblem::outside(value, range, unit).map(|problem| Finding::blocking(RULE, place, problem))
    };
    let found: Vec<Option<Finding>> = match what {
        ItemKind::Screw { length_mm, thread_mm, colour, .. } => {
            let long = colour.chars().count() > LONGEST;
            vec![
                within("length_mm", (*length_mm, Unit::Millimetres), LENGTH_MM),
                within("thread_mm", (*thread_mm, Unit::Millimetres), THREAD_MM),
                long.then(|| Finding::written(RULE, "colour", "up to 80 characters")),
            ]
        }
        ItemKind::Adhesive { warm_c, for_s } => {
            vec![within("warm_c", (*warm_c, Unit::Celsius), WARM_C), within("for_s", (*for_s, Unit::Seconds), FOR_S)]
        }
        ItemKind::ThermalPad { count, thickness_mm } => vec![
            within("count", (f64::from(*count), Unit::One), (1.0, 40.0)),
            within("thickness_mm", (*thickness_mm, Unit::Millimetres), (0.1, 10.0)),
        ],
        _ => Vec::new(),
    };
    found.into_iter().flatten().collect()
}

/// Writes a map.
pub fn write(file: &OpeningFile) -> Result<String, serde_json::Error> {
    Ok(serde_json::to_string_pretty(file)? + "\n")
}

/// Reads a map; everything in it is checked as if it were entered.
pub fn parse(bytes: &[u8]) -> Result<OpeningFile, Vec<Finding>> {
    let file = reading::json::<OpeningFile>(RULE, bytes)?;
    reading::expect_format(RULE, &file.format, &ACCEPTED)?;
    let found = file.findings();
    if found.is_empty() { Ok(file) } else { Err(found) }
}

#[cfg(test)]
mod tests {
    use mend_core::opening::item::ScrewHead;
    use mend_core::opening::map::MapEdit;

    use super::*;

    fn file(length_mm: f64) -> OpeningFile {
        let what = ItemKind::Screw { head: ScrewHead::Hex, length_mm, thread_mm: 2.0, colour: "black".to_owned() };
        let add = MapEdit::Add { page: 0, at: [0.1, 0.9], what, note: "snug".to_owned() };
        OpeningFile::new("Merle 2", OpeningMap::empty().edited(&add).expect("there is room"))
    }

    #[test]
    fn a_map_is_read_as_it_was_written() {
        let text = write(&file(4.5)).expect("written");
        assert!(text.contains("\"kind\": \"screw\"") && text.contains("\"head\": \"hex\""), "{text}");
        assert_eq!(parse(text.as_bytes()), Ok(file(4.5)));
    }

    #[test]
    fn what_can_not_be_is_named_with_its_place() {
        let mut bad = file(900.0);
        bad.items[0].page = 3;
        bad.items.push(bad.items[0].clone());
        let found = parse(write(&bad).expect("written").as_bytes()).expect_err("much is wrong");
        let places: Vec<&str> = found.iter().map(|finding| finding.place.as_str()).collect();
        for place in ["items[0].page", "items[1].id", "items[0].length_mm"] {
            assert!(places.contains(&place), "{place} of {places:?}");
        }
        assert!(parse(br#"{"format": "urgent-mend/opening/1", "device": "", "pages": [], "items": []}"#).is_err());
        assert!(
            parse(br#"{"format": "urgent-mend/opening/1", "device": "x", "pages": [], "items": [], "more": 1}"#)
                .is_err()
        );
    }
}
