//! A part or a consumable of a shop's stock, `urgent-mend/item/1`: what it is, where it fits, how it is bought.
//!
//! - [`used_as`]: what a consumable is used up as, and how much of it a use takes

pub mod used_as;

use mend_core::finding::Finding;
use mend_core::units::Money;
use serde::{Deserialize, Serialize};

use crate::reading::{self, Accepted};

/// The format's name.
pub const FORMAT: &str = "urgent-mend/item/1";
pub(crate) const ACCEPTED: Accepted = Accepted { written: FORMAT, older: &[] };
const RULE: &str = "item_file";
/// Longest name, longest line, characters.
const LONGEST: [usize; 2] = [80, 200];
/// More attributes or boards than this are a slip.
const MOST: usize = 40;
/// Longest lead time, days; largest pack.
const LEAD_DAYS: f64 = 365.0;
const PACK: f64 = 10_000.0;

/// What kind of item it is.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default, Serialize, Deserialize)]
#[serde(rename_all = "kebab-case")]
pub enum StockKind {
    /// A connector that is replaced.
    #[default]
    Part,
    /// Wire, braid, flux, tape, alcohol, nozzles.
    Consumable,
}

/// How a variant differs from others of its kind.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct ItemAttribute {
    /// `pin height`, `anchor pitch`, `latch side`, `mount`, `ways`.
    pub name: String,
    /// With its unit.
    pub value: String,
}

/// The item.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct StockItem {
    /// Always `urgent-mend/item/1`.
    pub format: String,
    /// What it is called.
    pub name: String,
    /// `part` or `consumable`.
    #[serde(default)]
    pub kind: StockKind,
    /// What it is counted in: `pc`, `m`, `mL`, `g`, `h`.
    pub unit: String,
    /// The connector that it is, by its name in the library; empty: none.
    #[serde(default)]
    pub connector: String,
    /// How it differs from others of its kind.
    #[serde(default)]
    pub attributes: Vec<ItemAttribute>,
    /// Board models that it fits, with the place where that is not plain.
    #[serde(default)]
    pub fits: Vec<String>,
    /// Where it is bought.
    #[serde(default)]
    pub supplier: String,
    /// What a pack costs the shop, `3.20`; empty: not known.
    #[serde(default)]
    pub price: String,
    /// How long it takes to come, days.
    #[serde(default = "usual_lead")]
    pub lead_days: f64,
    /// How much of it is bought at a time, in its unit.
    #[serde(default = "one")]
    pub pack: f64,
    /// Is it kept on the shelf, or bought for a job alone?
    #[serde(default)]
    pub keep: bool,
}

fn usual_lead() -> f64 {
    7.0
}

fn one() -> f64 {
    1.0
}

impl Default for StockItem {
    fn default() -> Self {
        let nothing = String::new;
        Self {
            format: FORMAT.to_owned(),
            name: nothing(),
            kind: StockKind::Part,
            unit: "pc".to_owned(),
            connector: nothing(),
            attributes: Vec::new(),
            fits: Vec::new(),
            supplier: nothing(),
            price: nothing(),
            lead_days: usual_lead(),
            pack: one(),
            keep: false,
        }
    }
}

impl StockItem {
    /// As it is to be kept, or everything that is wrong with it.
    pub fn checked(self) -> Result<Self, Vec<Finding>> {
        let mut bad = Vec::new();
        let mut object = |place: &str, message: String, hint: &str| {
            bad.push(Finding::written(RULE, place, message).hint(hint));
        };
        if !(1..=LONGEST[0]).contains(&self.name.chars().count()) {
            object("name", format!("“{}” is no name", self.name), "type 1 to 80 characters");
        }
        if self.unit.is_empty() || self.unit.chars().count() > 6 {
            object("unit", format!("“{}” is no unit", self.unit), "pc, m, mL, g or h");
        }
        let lines = [&self.connector, &self.supplier].into_iter().chain(&self.fits);
        let attributes = self.attributes.iter().flat_map(|attribute| [&attribute.name, &attribute.value]);
        if lines.chain(attributes).any(|line| line.chars().count() > LONGEST[1]) {
            object("text", "a line is too long".to_owned(), "up to 200 characters");
        }
        if self.attributes.len() > MOST || self.fits.len() > MOST {
            object("lists", format!("more than {MOST} lines"), "leave some out");
        }
        if !self.price.is_empty() && self.price.parse::<Money>().is_err() {
            object("price", format!("“{}” is no amount", self.price), "like 3.20; empty: not known");
        }
        if !(0.0..=LEAD_DAYS).contains(&self.lead_days) {
            object("lead time", format!("{} days can't be", self.lead_days), "0 to 365 days");
        }
        if !(self.pack > 0.0 && self.pack <= PACK) {
            object("pack", format!("{} can't be", self.pack), "more than 0, up to 10 000");
        }
        if bad.is_empty() { Ok(self) } else { Err(bad) }
    }

    /// What so much of it costs the shop; none: not known.
    pub fn costs(&self, amount: f64) -> Option<Money> {
        let pack: Money = self.price.parse().ok()?;
        Some(Money::hundredths((pack.in_hundredths() as f64 * amount / self.pack).round() as i64))
    }
}

/// Reads a file of an item.
///
/// ```
/// let item = mend_formats::item::parse(br#"{"format": "urgent-mend/item/1", "name": "Braid, 2 mm", "unit": "m"}"#);
/// assert_eq!(item.map(|item| item.lead_days), Ok(7.0));
/// ```
pub fn parse(bytes: &[u8]) -> Result<StockItem, Vec<Finding>> {
    let item: StockItem = reading::json(RULE, bytes)?;
    reading::expect_format(RULE, &item.format, &ACCEPTED)?;
    item.checked()
}

/// Writes it.
pub fn write(item: &StockItem) -> Result<String, serde_json::Error> {
    serde_json::to_string_pretty(item)
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn an_item_reads_back_as_it_was_written() {
        let attributes = vec![ItemAttribute { name: "pin height".to_owned(), value: "1.2 mm".to_owned() }];
        let item = StockItem {
            name: "Port, mid mount".to_owned(),
            attributes,
            price: "6.40".to_owned(),
            ..StockItem::default()
        };
        let text = write(&item).expect("written");
        assert_eq!(parse(text.as_bytes()), Ok(item));
    }

    #[test]
    fn everything_that_is_wrong_is_said_at_once() {
        let item = StockItem { price: "cheap".to_owned(), lead_days: -1.0, pack: 0.0, ..StockItem::default() };
        let places: Vec<String> = item.checked().expect_err("four slips").iter().map(|f| format!("{f:?}")).collect();
        assert_eq!(places.len(), 4, "{places:?}");
    }

    #[test]
    fn some_of_a_pack_costs_its_share() {
        let reel = StockItem { price: "8.00".to_owned(), pack: 5.0, ..StockItem::default() };
        assert_eq!((reel.costs(1.0), reel.costs(0.25)), (Some(Money::hundredths(160)), Some(Money::hundredths(40))));
        assert_eq!(StockItem::default().costs(1.0), None);
    }
}
