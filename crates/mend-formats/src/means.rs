//! What a shop has and can, `urgent-mend/means/1`: whose hands, tools besides the hot air, shields, solder in stock.

use mend_core::finding::Finding;
use mend_core::heat::shield::ShieldKind;
use mend_core::materials::Metal;
use mend_core::method::means::{Level, Means, Sucker};
use mend_core::method::usual::{SHIELDS, shield_kind};
use mend_core::units::Length;
use serde::{Deserialize, Serialize};

use crate::reading;

/// The format's name.
pub const FORMAT: &str = "urgent-mend/means/1";
const RULE: &str = "means_file";
/// More tips or alloys than this are a slip.
const MOST: usize = 40;

/// The file as it is written.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct MeansFile {
    /// Always `urgent-mend/means/1`.
    pub format: String,
    /// `learning`, `trained` or `practised`.
    pub level: Level,
    /// Iron tips by width.
    pub tips_mm: Vec<f64>,
    /// A plate to warm boards on?
    pub plate: bool,
    /// `none`, `pump` or `vacuum`.
    pub sucker: Sucker,
    /// Tinned copper wire?
    pub wire: bool,
    /// `polyimide`, `aluminium-tape`, `foil-tent`, `metal-block`.
    pub shields: Vec<String>,
    /// Solder in stock: alloys of the table, or parts like `Sn=43,Pb=43,Bi=14`.
    pub alloys: Vec<String>,
}

impl Default for MeansFile {
    /// What every shop has: two tips, tape and foil, wire, lead-free and leaded solder and one that melts low.
    fn default() -> Self {
        let words = |words: &[&str]| words.iter().map(|word| (*word).to_owned()).collect();
        Self {
            format: FORMAT.to_owned(),
            level: Level::Trained,
            tips_mm: vec![2.0, 4.0],
            plate: false,
            sucker: Sucker::None,
            wire: true,
            shields: words(&["polyimide", "foil-tent"]),
            alloys: words(&["SAC305", "Sn63Pb37", "Sn42Bi58"]),
        }
    }
}

/// Reads a means file.
pub fn parse(bytes: &[u8]) -> Result<MeansFile, Vec<Finding>> {
    let file: MeansFile = reading::json(RULE, bytes)?;
    reading::expect_format(RULE, &file.format, FORMAT)?;
    file.means()?;
    Ok(file)
}

/// As it is stored.
pub fn write(file: &MeansFile) -> Result<String, serde_json::Error> {
    serde_json::to_string(file)
}

impl MeansFile {
    /// What the methods are weighed with, or everything that is wrong with it.
    pub fn means(&self) -> Result<Means, Vec<Finding>> {
        let mut found = Vec::new();
        for (field, count) in [("tips_mm", self.tips_mm.len()), ("alloys", self.alloys.len())] {
            if count > MOST {
                let object = Finding::blocking(RULE, field, format!("{count} of them"));
                found.push(object.hint(format!("up to {MOST}")));
            }
        }
        for (k, tip) in self.tips_mm.iter().enumerate().filter(|(_, tip)| !(0.2..=12.0).contains(*tip)) {
            let object = Finding::blocking(RULE, format!("tips_mm[{k}]"), format!("a tip of {tip} mm"));
            found.push(object.hint("between 0.2 and 12 mm"));
        }
        let mut alloys = Vec::new();
        for (k, name) in self.alloys.iter().take(MOST).enumerate() {
            match Metal::read(&format!("alloys[{k}]"), name) {
                Ok(metal) => alloys.push(metal),
                Err(findings) => found.extend(findings),
            }
        }
        let (shields, unknown) = self.shields();
        found.extend(unknown);
        if !found.is_empty() {
            return Err(found);
        }
        let tips = self.tips_mm.iter().copied().map(Length::mm).collect();
        let Self { level, plate, sucker, wire, .. } = *self;
        Ok(Means { level, tips, plate, sucker, wire, shields, alloys })
    }

    fn shields(&self) -> (Vec<ShieldKind>, Vec<Finding>) {
        let known: Vec<&str> = SHIELDS.iter().map(|(key, _, _)| *key).collect();
        let object = |(k, word): (usize, &String)| {
            let object = Finding::blocking(RULE, format!("shields[{k}]"), format!("“{word}” is no shield we know"));
            shield_kind(word).is_none().then(|| object.hint(known.join(", ")))
        };
        let kinds = self.shields.iter().filter_map(|word| shield_kind(word)).collect();
        (kinds, self.shields.iter().enumerate().filter_map(object).collect())
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn what_every_shop_has_can_be_worked_with_and_comes_back_as_written() {
        let file = MeansFile::default();
        let means = file.means().expect("all of it is known");
        assert_eq!((means.low_melt().count(), means.leaded().count(), means.shields.len()), (1, 1, 2));
        let text = write(&file).expect("can be written");
        assert_eq!(parse(text.as_bytes()), Ok(file));
    }

    #[test]
    fn everything_wrong_is_said_at_once() {
        let wrong = MeansFile {
            tips_mm: vec![2.0, 40.0],
            shields: vec!["glue".to_owned()],
            alloys: vec!["Unobtainium".to_owned()],
            ..MeansFile::default()
        };
        let places: Vec<String> = wrong.means().expect_err("wrong").into_iter().map(|f| f.place).collect();
        assert_eq!(places, ["tips_mm[1]", "alloys[0]", "shields[0]"]);
    }
}
