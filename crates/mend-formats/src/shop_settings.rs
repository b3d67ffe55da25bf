//! A shop's own settings, `urgent-mend/shop/1`: its name, money, hours, units and the terms of its quotes.

use std::collections::BTreeMap;

use mend_core::finding::Finding;
use mend_core::units::{Money, Scale};
use serde::{Deserialize, Serialize};

use crate::reading::{self, Accepted};

/// The format's name.
pub const FORMAT: &str = "urgent-mend/shop/1";
pub(crate) const ACCEPTED: Accepted = Accepted { written: FORMAT, older: &[] };
const RULE: &str = "shop_file";
/// Longest name, characters.
const LONGEST_NAME: usize = 80;
/// More kinds with a fixed price than this are a slip.
const MOST_PRICES: usize = 200;
/// Longest terms, characters: as the intake takes them.
const LONGEST_TERMS: usize = 2000;

/// The days of a week, Monday first, as they are written.
pub const DAYS: [&str; 7] = ["monday", "tuesday", "wednesday", "thursday", "friday", "saturday", "sunday"];

/// The settings.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct ShopSettings {
    /// Always `urgent-mend/shop/1`.
    pub format: String,
    /// What the shop is called on its sheets; empty: not said.
    #[serde(default)]
    pub name: String,
    /// Letters or a sign of its currency, up to four; empty: not said.
    #[serde(default)]
    pub currency: String,
    /// What an hour at the bench costs, `60.00`; empty: not said.
    #[serde(default)]
    pub rate: String,
    /// Kinds of connector that have a fixed price, `85.00`.
    #[serde(default)]
    pub prices: BTreeMap<String, String>,
    /// When it opens and closes, `09:00`.
    #[serde(default = "usual_hours")]
    pub hours: [String; 2],
    /// The days on which it is open.
    #[serde(default = "usual_days")]
    pub days: Vec<String>,
    /// The scale in which temperatures are read where a visitor has chosen none.
    #[serde(default)]
    pub scale: Scale,
    /// What every new job's terms begin with.
    #[serde(default)]
    pub terms: String,
    /// For so many days after it went back a job that comes again is a return.
    #[serde(default = "usual_warranty")]
    pub warranty_days: u32,
    /// Who a customer was is forgotten so many months after their last job; 0: never by itself.
    #[serde(default)]
    pub forget_months: u32,
}

/// Ninety days (E).
fn usual_warranty() -> u32 {
    90
}

fn usual_hours() -> [String; 2] {
    ["09:00".to_owned(), "17:00".to_owned()]
}

fn usual_days() -> Vec<String> {
    DAYS[..5].iter().map(|day| (*day).to_owned()).collect()
}

impl Default for ShopSettings {
    fn default() -> Self {
        Self {
            format: FORMAT.to_owned(),
            name: String::new(),
            currency: String::new(),
            rate: String::new(),
            prices: BTreeMap::new(),
            hours: usual_hours(),
            days: usual_days(),
            scale: Scale::default(),
            terms: String::new(),
            warranty_days: usual_warranty(),
            forget_months: 0,
        }
    }
}

/// Reads a file of a shop's settings.
pub fn parse(bytes: &[u8]) -> Result<ShopSettings, Vec<Finding>> {
    let file: ShopSettings = reading::json(RULE, bytes)?;
    reading::expect_format(RULE, &file.format, &ACCEPTED)?;
    file.checked()
}

/// Writes them.
pub fn write(file: &ShopSettings) -> Result<String, serde_json::Error> {
    Ok(serde_json::to_string_pretty(file)? + "\n")
}

impl ShopSettings {
    /// As they are kept, or everything that is wrong with them.
    pub fn checked(self) -> Result<Self, Vec<Finding>> {
        let mut found = Vec::new();
        let mut object = |place: &str, message: String, hint: &str| {
            found.push(Finding::written(RULE, place, message).hint(hint));
        };
        let longest = |text: &str, most: usize| text.chars().count() > most;
        if longest(&self.name, LONGEST_NAME) {
            object("name", format!("“{}” is too long", self.name), "up to 80 characters");
        }
        if longest(&self.currency, 4) || self.currency.chars().any(char::is_whitespace) {
            object("currency", format!("“{}” is no currency", self.currency), "up to four letters, or its sign");
        }
        let rate =
            if self.rate.is_empty() { Ok(String::new()) } else { self.rate.parse::<Money>().map(|m| m.to_string()) };
        let rate = rate.unwrap_or_else(|why| {
            object("rate", format!("“{}” can't be read", self.rate), &why.to_string());
            String::new()
        });
        let mut prices = BTreeMap::new();
        for (kind, price) in &self.prices {
            match price.parse::<Money>() {
                Ok(price) => {
                    prices.insert(kind.clone(), price.to_string());
                }
                Err(why) => object("prices", format!("“{price}” for {kind} can't be read"), &why.to_string()),
            }
        }
        if self.prices.len() > MOST_PRICES {
            object("prices", format!("{} are too many", self.prices.len()), "up to 200 kinds");
        }
        for (place, hour) in ["opens", "closes"].iter().zip(&self.hours) {
            if minutes(hour).is_none() {
                object(place, format!("“{hour}” is no time of day"), "hours and minutes, like 09:00");
            }
        }
        if let [Some(opens), Some(closes)] = [&self.hours[0], &self.hours[1]].map(|hour| minutes(hour))
            && opens >= closes
        {
            object("closes", format!("{} is not after {}", self.hours[1], self.hours[0]), "a later time of day");
        }
        for day in self.days.iter().filter(|day| !DAYS.contains(&day.as_str())) {
            object("days", format!("“{day}” is no day"), &DAYS.join(", "));
        }
        if longest(&self.terms, LONGEST_TERMS) {
            object("terms", "the terms are too long".to_owned(), "up to 2000 characters");
        }
        if self.warranty_days > 3650 || self.forget_months > 240 {
            object("days", "that is too long".to_owned(), "up to 3650 days, and 240 months");
        }
        if found.is_empty() { Ok(Self { rate, prices, ..self }) } else { Err(found) }
    }
}

/// Minutes since midnight of `09:00`.
fn minutes(hour: &str) -> Option<u32> {
    let (hours, minutes) = hour.split_once(':')?;
    let two = |text: &str| text.len() == 2 && text.bytes().all(|b| b.is_ascii_digit());
    let (h, m): (u32, u32) = (hours.parse().ok()?, minutes.parse().ok()?);
    (two(hours) && two(minutes) && h < 24 && m < 60).then_some(60 * h + m)
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn settings_come_back_as_they_were_written() {
        let shop = ShopSettings {
            name: "Harbour bench".to_owned(),
            currency: "EUR".to_owned(),
            rate: "60.00".to_owned(),
            prices: [("five-leg power jack".to_owned(), "85.00".to_owned())].into(),
            scale: Scale::Fahrenheit,
            ..ShopSettings::default()
        };
        let text = write(&shop).expect("can be written");
        assert_eq!(parse(text.as_bytes()), Ok(shop));
    }

    #[test]
    fn everything_wrong_is_said_at_once() {
        let wrong = ShopSettings {
            currency: "a lot".to_owned(),
            rate: "much".to_owned(),
            prices: [("five-leg power jack".to_owned(), "dear".to_owned())].into(),
            hours: ["18:00".to_owned(), "9".to_owned()],
            days: vec!["someday".to_owned()],
            ..ShopSettings::default()
        };
        let places: Vec<String> = wrong.checked().expect_err("wrong").into_iter().map(|f| f.place).collect();
        assert_eq!(places, ["currency", "rate", "prices", "closes", "days"]);
        let turned = ShopSettings { hours: ["18:00".to_owned(), "09:00".to_owned()], ..ShopSettings::default() };
        assert_eq!(turned.checked().expect_err("turned")[0].place, "closes");
    }
}
