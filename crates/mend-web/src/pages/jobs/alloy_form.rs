//! The alloy stop's form: as it is shown and as it is sent.

use mend_core::finding::Finding;
use mend_core::solder::{CompositionEntry, FeedEntry};
use mend_core::solder::{MakersMark, Wire};
use mend_core::units::{Scale, Temperature};

use crate::pages::number::number;

/// The fields as they stand.
pub(crate) struct AlloyForm {
    pub(crate) year: String,
    pub(crate) mark: &'static str,
    pub(crate) alloy: String,
    pub(crate) feed: String,
    pub(crate) share: String,
    pub(crate) wire: String,
    pub(crate) flux: String,
    pub(crate) refit: String,
    pub(crate) want_hint: String,
}

/// Share that the slider stands at before anybody has moved it.
const FIRST_SHARE: f64 = 0.4;
/// A wanted working temperature, as an example in the empty field.
const EXAMPLE: Temperature = Temperature::celsius(185.0);

impl AlloyForm {
    pub(crate) fn from_entry(file: &CompositionEntry, scale: Scale) -> Self {
        let feed = file.feed.as_ref();
        let percent = |share: f64| format!("{}", (share * 1000.0).round() / 10.0);
        Self {
            year: file.year.map_or(String::new(), |year| year.to_string()),
            mark: file.mark.name(),
            alloy: file.alloy.clone(),
            feed: feed.map_or(String::new(), |f| f.alloy.clone()),
            share: percent(feed.map_or(FIRST_SHARE, |f| f.mixing_fraction)),
            wire: format!("{}", feed.map_or(Wire::USUAL.diameter_mm, |f| f.wire_mm)),
            flux: percent(feed.map_or(Wire::USUAL.flux_share, |f| f.flux_share)),
            refit: file.refit.clone().unwrap_or_default(),
            want_hint: format!("{:.0}", scale.of(EXAMPLE)),
        }
    }
}

/// Reads the form: what is to be kept, and the working temperature for which an amount is asked.
pub(crate) fn read(
    sent: &[(String, String)],
    scale: Scale,
) -> Result<(CompositionEntry, Option<Temperature>), Vec<Finding>> {
    let value = |name: &str| sent.iter().find(|(key, _)| key == name).map_or("", |(_, value)| value.trim());
    let mut bad = Vec::new();
    let mut or_usual = |name: &str, usual: f64| {
        if value(name).is_empty() { usual } else { number("alloy_form", name, value(name), &mut bad) }
    };
    let (share, wire_mm) = (or_usual("share", 100.0 * FIRST_SHARE), or_usual("wire", Wire::USUAL.diameter_mm));
    let flux = or_usual("flux", 100.0 * Wire::USUAL.flux_share);
    let year = or_usual("year", 0.0);
    let want = or_usual("want", 0.0);
    if !(year == 0.0 || (1960.0..=2100.0).contains(&year)) {
        let object = Finding::written("alloy_form", "year", format!("{year} is no year of a board"));
        bad.push(object.hint("four digits, like 2019, or nothing"));
    }
    let find = !value("find").is_empty();
    if find && value("want").is_empty() {
        let object = Finding::written("alloy_form", "want", "no working temperature is given");
        bad.push(object.hint("type the temperature from which the joints shall be melted"));
    }
    if !bad.is_empty() {
        return Err(bad);
    }
    let optional = |name: &str| Some(value(name)).filter(|text| !text.is_empty()).map(str::to_owned);
    let rows = sent.iter().filter(|(key, _)| key == "row").map(|(_, row)| row.clone()).collect();
    let feed = |alloy| FeedEntry { alloy, mixing_fraction: share / 100.0, wire_mm, flux_share: flux / 100.0, rows };
    let mark = MakersMark::ALL.into_iter().find(|mark| mark.name() == value("mark")).unwrap_or_default();
    let file = CompositionEntry {
        alloy: value("alloy").to_owned(),
        year: (year > 0.0).then_some(year as u32),
        mark,
        feed: optional("feed").map(feed),
        refit: optional("refit"),
    };
    Ok((file, find.then(|| scale.read(want))))
}
