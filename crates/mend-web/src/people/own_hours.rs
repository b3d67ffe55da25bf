//! When somebody works, where that is not while the shop is open.

use mend_core::finding::Finding;
use mend_formats::shop_settings::DAYS;
use serde::{Deserialize, Serialize};

/// Days and hours of their own.
#[derive(Debug, Clone, PartialEq, Eq, Default, Serialize, Deserialize)]
pub(crate) struct OwnHours {
    /// From and until, `09:00`; empty: as the shop.
    #[serde(default)]
    pub(crate) hours: [String; 2],
    /// `monday` and so on; none: on all days on which the shop is open.
    #[serde(default)]
    pub(crate) days: Vec<String>,
}

impl OwnHours {
    /// As it is stored; what can't be read is none of their own.
    pub(crate) fn parse(stored: &str) -> Self {
        serde_json::from_str(stored).unwrap_or_default()
    }

    /// As it is to be stored; empty where they have the shop's.
    pub(crate) fn stored(&self) -> Result<String, serde_json::Error> {
        if *self == Self::default() { Ok(String::new()) } else { serde_json::to_string(self) }
    }

    /// As a form sent it, or everything that is wrong with it.
    pub(crate) fn read(sent: &[(String, String)]) -> Result<Self, Vec<Finding>> {
        let get = |name: &str| sent.iter().find(|(field, _)| field == name).map_or("", |(_, value)| value.trim());
        let hours = ["from", "until"].map(|name| get(name).to_owned());
        let mut bad = Vec::new();
        for (place, hour) in ["from", "until"].into_iter().zip(&hours) {
            if !hour.is_empty() && format!("{hour}:00").parse::<jiff::civil::Time>().is_err() {
                let object = Finding::written("request", place, format!("“{hour}” is no time of day"));
                bad.push(object.hint("hours and minutes, like 09:00"));
            }
        }
        if !hours[0].is_empty() && !hours[1].is_empty() && hours[0] >= hours[1] && bad.is_empty() {
            let object = Finding::written("request", "until", format!("{} is not after {}", hours[1], hours[0]));
            bad.push(object.hint("a later time of day"));
        }
        let days = sent.iter().filter(|(field, value)| field == "day" && DAYS.contains(&value.as_str()));
        let days: Vec<String> = days.map(|(_, day)| day.clone()).collect();
        let days = if days.len() == DAYS.len() { Vec::new() } else { days };
        if bad.is_empty() { Ok(Self { hours, days }) } else { Err(bad) }
    }

    /// Do they work on that day of the week?
    pub(crate) fn has_day(&self, day: &str) -> bool {
        self.days.is_empty() || self.days.iter().any(|own| own == day)
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn hours_come_back_as_they_were_typed_and_none_are_the_shops() {
        let sent =
            [("from", "09:00"), ("until", "13:00"), ("day", "monday")].map(|(a, b)| (a.to_owned(), b.to_owned()));
        let own = OwnHours::read(&sent).expect("they can be");
        assert_eq!(OwnHours::parse(&own.stored().expect("stored")), own);
        assert!(own.has_day("monday") && !own.has_day("friday"));
        assert_eq!(OwnHours::default().stored().expect("stored"), "");
        assert!(OwnHours::parse("").has_day("friday"));
        let turned = [("from", "13:00"), ("until", "9")].map(|(a, b)| (a.to_owned(), b.to_owned()));
        assert!(OwnHours::read(&turned).is_err());
    }
}
