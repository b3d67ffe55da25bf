//! What a shop has and can, `urgent-mend/equipment/2`: whose hands, tools besides the hot air, shields, solder in stock.

use mend_core::finding::Finding;
use mend_core::finding::problem::ValueProblem;
use mend_core::heat::shield::ShieldKind;
use mend_core::materials::Metal;
use mend_core::method::equipment::{Equipment, SkillLevel, Sucker};
use mend_core::method::usual::{SHIELDS, shield_kind};
use mend_core::units::{Length, Unit};
use serde::{Deserialize, Serialize};

use crate::reading::{self, Accepted};

/// The format's name.
pub const FORMAT: &str = "urgent-mend/equipment/2";
pub(crate) const ACCEPTED: Accepted = Accepted { written: FORMAT, older: &["urgent-mend/means/1"] };
const RULE: &str = "equipment_file";
/// More tips or alloys than this are a slip.
const MOST: usize = 40;
/// Tips that there are, mm.
const TIPS_MM: (f64, f64) = (0.2, 12.0);

/// The file as it is written.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct EquipmentFile {
    /// Always `urgent-mend/equipment/2`.
    pub format: String,
    /// `learning`, `trained` or `practised`.
    pub level: SkillLevel,
    /// Iron tips by width.
    pub tips_mm: Vec<f64>,
    /// A preheater to warm boards on?
    #[serde(alias = "plate")]
    pub preheater: bool,
    /// `none`, `pump` or `vacuum`.
    pub sucker: Sucker,
    /// Tinned copper wire?
    pub wire: bool,
    /// An ultrasonic bath?
    #[serde(default)]
    pub bath: bool,
    /// One microscope for everybody? Else there is one at each bench.
    #[serde(default)]
    pub shared_microscope: bool,
    /// `polyimide`, `aluminium-tape`, `foil-tent`, `metal-block`.
    pub shields: Vec<String>,
    /// Solder in stock: alloys of the table, or parts like `Sn=43,Pb=43,Bi=14`.
    pub alloys: Vec<String>,
}

impl Default for EquipmentFile {
    /// What every shop has: two tips, tape and foil, wire, lead-free and leaded solder and one that melts low.
    fn default() -> Self {
        let words = |words: &[&str]| words.iter().map(|word| (*word).to_owned()).collect();
        Self {
            format: FORMAT.to_owned(),
            level: SkillLevel::Trained,
            tips_mm: vec![2.0, 4.0],
            preheater: false,
            sucker: Sucker::None,
            wire: true,
            bath: false,
            shared_microscope: false,
            shields: words(&["polyimide", "foil-tent"]),
            alloys: words(&["SAC305", "Sn63Pb37", "Sn42Bi58"]),
        }
    }
}

/// Reads an equipment file.
pub fn parse(bytes: &[u8]) -> Result<EquipmentFile, Vec<Finding>> {
    let mut file: EquipmentFile = reading::json(RULE, bytes)?;
    reading::expect_format(RULE, &file.format, &ACCEPTED)?;
    file.equipment()?;
    FORMAT.clone_into(&mut file.format);
    Ok(file)
}

/// As it is stored.
pub fn write(file: &EquipmentFile) -> Result<String, serde_json::Error> {
    serde_json::to_string(file)
}

impl EquipmentFile {
    /// What the methods are weighed with, or everything that is wrong with it.
    pub fn equipment(&self) -> Result<Equipment, Vec<Finding>> {
        let mut found = Vec::new();
        for (field, count) in [("tips_mm", self.tips_mm.len()), ("alloys", self.alloys.len())] {
            if count > MOST {
                let object = Finding::written(RULE, field, format!("{count} of them"));
                found.push(object.hint(format!("up to {MOST}")));
            }
        }
        let tip = |(k, tip): (usize, &f64)| {
            let problem = ValueProblem::outside(*tip, TIPS_MM, Unit::Millimetres)?;
            Some(Finding::blocking(RULE, format!("tips_mm[{k}]"), problem))
        };
        found.extend(self.tips_mm.iter().enumerate().filter_map(tip));
        let mut alloys = Vec::new();
        for (k, name) in self.alloys.iter().take(MOST).enumerate() {
            match Metal::parse(&format!("alloys[{k}]"), name) {
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
        let Self { level, preheater, sucker, wire, .. } = *self;
        Ok(Equipment { level, tips, preheater, sucker, wire, shields, alloys })
    }

    fn shields(&self) -> (Vec<ShieldKind>, Vec<Finding>) {
        let known: Vec<&str> = SHIELDS.iter().map(|(key, _, _)| *key).collect();
        let object = |(k, word): (usize, &String)| {
            let object = Finding::written(RULE, format!("shields[{k}]"), format!("“{word}” is no shield we know"));
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
        let file = EquipmentFile::default();
        let equipment = file.equipment().expect("all of it is known");
        assert_eq!((equipment.low_melt().count(), equipment.leaded().count(), equipment.shields.len()), (1, 1, 2));
        let text = write(&file).expect("can be written");
        assert_eq!(parse(text.as_bytes()), Ok(file));
    }

    #[test]
    fn everything_wrong_is_said_at_once() {
        let wrong = EquipmentFile {
            tips_mm: vec![2.0, 40.0],
            shields: vec!["glue".to_owned()],
            alloys: vec!["Unobtainium".to_owned()],
            ..EquipmentFile::default()
        };
        let places: Vec<String> = wrong.equipment().expect_err("wrong").into_iter().map(|f| f.place).collect();
        assert_eq!(places, ["tips_mm[1]", "alloys[0]", "shields[0]"]);
    }
}
