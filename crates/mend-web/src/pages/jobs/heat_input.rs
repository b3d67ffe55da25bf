//! The heat plan's form as it was sent: parsed field by field into inputs of a plan.

use std::str::FromStr;

use mend_core::board::{Face, KeepIntact};
use mend_core::finding::Finding;
use mend_core::heat::bridge::Bridge;
use mend_core::heat::iron::{Iron, USUAL_DWELL};
use mend_core::heat::motion::Motion;
use mend_core::heat::preheater::{Coupling, Preheater};
use mend_core::heat::purpose::Purpose;
use mend_core::heat::recipe::{HeatingAids, HeatingStage, Held, Recipe};
use mend_core::heat::shield::{Shield, ShieldKind};
use mend_core::heat::tool::{Approach, ComesNearWhen, HotAir, Tilt};
use mend_core::planning::plan_inputs::PlanInputs;
use mend_core::units::{Duration, Flow, Length, Scale, Temperature};

use crate::pages::number::number;

/// More stages or shields than this are not read.
const MOST_ROWS: usize = 64;

/// Within this a nozzle comes near where nothing is said, s (E).
pub(super) const USUAL_APPROACH_S: f64 = 10.0;

/// The form as it was sent, read field by field; every field that is no number is objected to by its name.
pub(crate) struct FormInput {
    fields: Vec<(String, String)>,
    scale: Scale,
    bad: Vec<Finding>,
}

impl FormInput {
    pub(crate) fn new(fields: Vec<(String, String)>, scale: Scale) -> Self {
        Self { fields, scale, bad: Vec::new() }
    }

    /// What a button asks for, if it was a button.
    pub(crate) fn act(&self) -> Option<&str> {
        self.get("act")
    }

    fn get(&self, name: &str) -> Option<&str> {
        self.fields.iter().find(|(field, _)| field == name).map(|(_, value)| value.as_str())
    }

    fn number(&mut self, name: &str) -> f64 {
        let typed = self.get(name).unwrap_or_default().to_owned();
        number(("settings", name), &typed, &mut self.bad)
    }

    /// The same for a field that may be left out.
    fn number_or_zero(&mut self, name: &str) -> f64 {
        if self.get(name).is_some() { self.number(name) } else { 0.0 }
    }

    fn temperature(&mut self, name: &str) -> Temperature {
        let value = self.number(name);
        self.scale.read(value)
    }

    /// One of the words of a format.
    fn word<T: serde::de::DeserializeOwned>(&mut self, name: &str, usual: T) -> T {
        let typed = self.get(name).unwrap_or_default().to_owned();
        serde_json::from_value(serde_json::Value::String(typed.clone())).unwrap_or_else(|_| {
            let object = Finding::written("settings", name, format!("“{typed}” is none of the choices"));
            self.bad.push(object.hint("choose one that the form offers"));
            usual
        })
    }

    /// The inputs but for what the joints hold, or everything that can't be read.
    pub(crate) fn inputs(mut self) -> Result<PlanInputs, Vec<Finding>> {
        let settings = Recipe {
            air: self.get("set").is_some().then(|| self.air("")),
            longest: Duration::seconds(self.number("longest")),
            preheat: (0..MOST_ROWS).map_while(|k| self.stage(&format!("stage-{k}-"))).collect(),
            during: self.helpers(""),
            shields: (0..MOST_ROWS).map_while(|k| self.shield(&format!("shield-{k}-"))).collect(),
            bridge: self.bridge(),
            held: self.held(),
            begins_at: self.begins_at(),
            levered: self.get("levered") == Some("yes"),
        };
        let (station, keep_intact) =
            (self.get("station").unwrap_or_default().to_owned(), self.word_if_asked("keep_intact", KeepIntact::Board));
        let (alloy, feed, refit, method) = (String::new(), None, None, None);
        let purpose = self.word_if_asked("purpose", Purpose::Remove);
        let inputs = PlanInputs { station, alloy, feed, refit, keep_intact, method, purpose, settings };
        if self.bad.is_empty() { Ok(inputs) } else { Err(self.bad) }
    }

    fn air(&mut self, at: &str) -> HotAir {
        HotAir {
            set: self.temperature(&format!("{at}set")),
            flow: Flow::litres_per_minute(self.number(&format!("{at}flow"))),
            nozzle: Length::mm(self.number(&format!("{at}nozzle"))),
            distance: Length::mm(self.number(&format!("{at}distance"))),
            face: self.word(&format!("{at}face"), Face::Top),
            motion: self.word(&format!("{at}motion"), Motion::Still),
            aim: ["x", "y"].map(|axis| self.number_or_zero(&format!("{at}aim-{axis}"))),
            approach: self.filled(&format!("{at}approach-from")).map(|from| Approach {
                from: Length::mm(from),
                over: Duration::seconds(self.filled(&format!("{at}approach-over")).unwrap_or(USUAL_APPROACH_S)),
                when: self.word_if_asked(&format!("{at}approach-when"), ComesNearWhen::AtOnce),
            }),
            tilt: self
                .filled(&format!("{at}lean"))
                .map(|lean_deg| Tilt { lean_deg, towards_deg: self.filled(&format!("{at}towards")).unwrap_or(0.0) }),
        }
    }

    /// The number in a field that may be left empty.
    fn filled(&mut self, name: &str) -> Option<f64> {
        let is_empty = self.get(name).is_none_or(|typed| typed.trim().is_empty());
        (!is_empty).then(|| self.number(name))
    }

    /// One of the words of a format, or the usual one where a form does not ask.
    fn word_if_asked<T: serde::de::DeserializeOwned>(&mut self, name: &str, usual: T) -> T {
        if self.get(name).is_some() { self.word(name, usual) } else { usual }
    }

    /// An empty field means ambient temperature.
    fn begins_at(&mut self) -> Option<Temperature> {
        let typed = self.get("begins-at")?.trim();
        (!typed.is_empty()).then(|| self.temperature("begins-at"))
    }

    /// What a form without the question means: a hand.
    fn held(&mut self) -> Held {
        if self.get("held").is_some() { self.word("held", Held::Hand) } else { Held::Hand }
    }

    fn bridge(&mut self) -> Option<Bridge> {
        self.get("bridge-bead")?;
        Some(Bridge { wire_mm: self.number("bridge-wire"), bead_mm2: self.number("bridge-bead") })
    }

    fn helpers(&mut self, at: &str) -> HeatingAids {
        let preheater = self.get(&format!("{at}preheater")).is_some();
        let preheater = preheater.then(|| Preheater {
            set: self.temperature(&format!("{at}preheater-set")),
            coupling: self.word(&format!("{at}preheater-coupling"), Coupling::Gap),
            face: self.word(&format!("{at}preheater-face"), Face::Bottom),
            side: Length::mm(self.number(&format!("{at}preheater-side"))),
        });
        let [iron, second_iron] = ["iron", "second-iron"].map(|name| self.iron(&format!("{at}{name}")));
        HeatingAids { preheater, iron, second_iron }
    }

    fn iron(&mut self, at: &str) -> Option<Iron> {
        self.get(at)?;
        Some(Iron {
            set: self.temperature(&format!("{at}-set")),
            tip: Length::mm(self.number(&format!("{at}-tip"))),
            row: self.get(&format!("{at}-row")).unwrap_or_default().to_owned(),
            dwell: self.dwell(&format!("{at}-dwell")),
        })
    }

    /// What a form without the question means: the usual.
    fn dwell(&mut self, name: &str) -> Duration {
        if self.get(name).is_some() { Duration::seconds(self.number(name)) } else { USUAL_DWELL }
    }

    fn stage(&mut self, at: &str) -> Option<HeatingStage> {
        self.get(&format!("{at}lasts"))?;
        let air = self.get(&format!("{at}set")).is_some();
        Some(HeatingStage {
            air: air.then(|| self.air(at)),
            during: self.helpers(at),
            lasts: Duration::seconds(self.number(&format!("{at}lasts"))),
            change: Duration::seconds(self.number(&format!("{at}change"))),
        })
    }

    fn shield(&mut self, at: &str) -> Option<Shield> {
        let name = self.get(&format!("{at}kind"))?.to_owned();
        let amount = format!("{at}amount");
        let kind = match name.as_str() {
            "aluminium-tape" => ShieldKind::AluminiumTape,
            "holder-jaw" => ShieldKind::HolderJaw,
            "finger" => ShieldKind::Finger,
            "foil-tent" => ShieldKind::FoilTent { gap_mm: self.number(&amount) },
            "metal-block" => ShieldKind::MetalBlock { height_mm: self.number(&amount) },
            _ => ShieldKind::Polyimide { layers: self.whole(&amount) },
        };
        Some(Shield {
            kind,
            face: self.word(&format!("{at}face"), Face::Top),
            at_mm: ["x", "y"].map(|axis| self.number(&format!("{at}{axis}"))),
            width_mm: self.number(&format!("{at}width")),
            depth_mm: self.number(&format!("{at}depth")),
        })
    }

    fn whole(&mut self, name: &str) -> u32 {
        let typed = self.get(name).unwrap_or_default().to_owned();
        u32::from_str(typed.trim()).unwrap_or_else(|_| {
            let object = Finding::written("settings", name, format!("“{typed}” is no whole number"));
            self.bad.push(object.hint("type digits, like 2"));
            1
        })
    }
}

#[cfg(test)]
mod tests {
    use super::super::heat_form::{FormContext, Settings};
    use super::*;
    use crate::fixture::{gull, planned, power_board};
    use crate::words::Words;
    use mend_core::method::JobKind;

    const FULL: &[(&str, &str)] = &[
        ("set", "752"),
        ("flow", "90"),
        ("nozzle", "22"),
        ("distance", "25"),
        ("face", "bottom"),
        ("motion", "along-row"),
        ("aim-x", "-2,5"),
        ("aim-y", "1"),
        ("longest", "180"),
        ("station", "Gull, bench 1"),
        ("keep_intact", "both"),
        ("stage-0-lasts", "30"),
        ("stage-0-change", "5"),
        ("stage-0-set", "572"),
        ("stage-0-flow", "96"),
        ("stage-0-nozzle", "22"),
        ("stage-0-distance", "25"),
        ("stage-0-face", "bottom"),
        ("stage-0-motion", "still"),
        ("stage-1-lasts", "20"),
        ("stage-1-change", "0"),
        ("preheater", "yes"),
        ("preheater-set", "356"),
        ("preheater-coupling", "gap"),
        ("preheater-face", "bottom"),
        ("preheater-side", "120"),
        ("iron", "yes"),
        ("iron-set", "716"),
        ("iron-tip", "4"),
        ("iron-row", "legs"),
        ("shield-0-kind", "polyimide"),
        ("shield-0-amount", "2"),
        ("shield-0-face", "top"),
        ("shield-0-x", "14"),
        ("shield-0-y", "18"),
        ("shield-0-width", "9"),
        ("shield-0-depth", "9"),
        ("shield-1-kind", "aluminium-tape"),
        ("shield-1-face", "top"),
        ("shield-1-x", "44"),
        ("shield-1-y", "8"),
        ("shield-1-width", "12"),
        ("shield-1-depth", "6"),
    ];

    fn sent(scale: Scale, changed: &[(&str, &str)]) -> FormInput {
        let value = |(name, usual): &(&str, &str)| {
            let typed = changed.iter().find(|(field, _)| field == name).map_or(*usual, |(_, typed)| typed);
            ((*name).to_owned(), typed.to_owned())
        };
        FormInput::new(FULL.iter().map(value).collect(), scale)
    }

    #[test]
    fn a_whole_form_is_read_in_the_visitors_degrees() {
        let inputs = sent(Scale::Fahrenheit, &[]).inputs().expect("can be read");
        let recipe = &inputs.settings;
        assert!(inputs.keep_intact == KeepIntact::Both);
        assert_eq!(
            recipe.air.map(|air| (air.set.in_celsius().round(), air.motion, air.aim)),
            Some((400.0, Motion::AlongRow, [-2.5, 1.0]))
        );
        let stages: Vec<&str> = recipe.preheat.iter().map(HeatingStage::name).collect();
        assert_eq!(stages, ["air", "pause"]);
        let preheater = recipe.during.preheater.expect("a preheater");
        assert!((preheater.set.in_celsius() - 180.0).abs() < 1e-9);
        assert_eq!(recipe.during.iron.as_ref().map(|iron| iron.row.as_str()), Some("legs"));
        let kinds: Vec<ShieldKind> = recipe.shields.iter().map(|s| s.kind).collect();
        assert_eq!(kinds, [ShieldKind::Polyimide { layers: 2 }, ShieldKind::AluminiumTape]);
    }

    #[test]
    fn what_is_seldom_set_is_read_where_it_is_and_nothing_where_it_is_left_empty() {
        let rare = [
            ("approach-from", "80"),
            ("approach-over", "20"),
            ("approach-when", "flux-smokes"),
            ("lean", ""),
            ("towards", ""),
            ("begins-at", "212"),
            ("second-iron", "yes"),
            ("second-iron-set", "662"),
            ("second-iron-tip", "2"),
            ("second-iron-row", "every joint"),
            ("second-iron-dwell", "3"),
            ("purpose", "set-on"),
        ];
        let fields = FULL.iter().chain(&rare).map(|(name, value)| ((*name).to_owned(), (*value).to_owned()));
        let inputs = FormInput::new(fields.collect(), Scale::Fahrenheit).inputs().expect("can be read");
        let (recipe, air) = (&inputs.settings, inputs.settings.air.expect("hot air"));
        assert_eq!(
            air.approach.map(|approach| (approach.from, approach.over, approach.when)),
            Some((Length::mm(80.0), Duration::seconds(20.0), ComesNearWhen::FluxSmokes))
        );
        assert_eq!((air.tilt, inputs.purpose), (None, Purpose::SetOn));
        assert!(recipe.begins_at.is_some_and(|begins| (begins.in_celsius() - 100.0).abs() < 1e-9));
        let second = recipe.during.second_iron.as_ref().expect("a second iron");
        assert_eq!((second.row.as_str(), second.dwell_s()), ("every joint", 3));
        let half = FULL.iter().chain(&[("lean", "30"), ("towards", "")]);
        let half = half.map(|(name, value)| ((*name).to_owned(), (*value).to_owned())).collect();
        let inputs = FormInput::new(half, Scale::Celsius).inputs().expect("can be read");
        let tilt = inputs.settings.air.and_then(|air| air.tilt);
        assert_eq!(tilt, Some(Tilt { lean_deg: 30.0, towards_deg: 0.0 }), "to the right, where nothing is said");
    }

    #[test]
    fn everything_that_can_not_be_read_is_named_at_once() {
        let slips = [
            ("set", "hot"),
            ("face", "left"),
            ("stage-1-lasts", ""),
            ("preheater-coupling", "glue"),
            ("shield-0-amount", "1.5"),
            ("shield-1-width", "NaN"),
        ];
        let found = sent(Scale::Celsius, &slips).inputs().expect_err("slips");
        let places: Vec<&str> = found.iter().map(|f| f.place.as_str()).collect();
        for (place, typed) in slips {
            let finding = found.iter().find(|f| f.place == place).unwrap_or_else(|| panic!("{place} in {places:?}"));
            let view = Words::default().finding(finding);
            assert!(view.message.contains(&format!("“{typed}”")) && !view.hint.is_empty(), "{view:?}");
        }
        assert_eq!(found.len(), slips.len(), "{places:?}");
    }

    #[test]
    fn a_form_that_leaves_out_the_aim_means_the_middle() {
        let fields = FULL.iter().filter(|(name, _)| !name.starts_with("aim"));
        let fields = fields.map(|(name, value)| ((*name).to_owned(), (*value).to_owned())).collect();
        let inputs = FormInput::new(fields, Scale::Celsius).inputs().expect("can be read");
        assert_eq!(inputs.settings.air.map(|air| air.aim), Some([0.0, 0.0]));
    }

    #[test]
    fn the_form_shows_what_is_set_and_offers_what_the_shop_owns() {
        let (inputs, _) = planned();
        let (stations, board) = ([gull()], power_board());
        let shop = FormContext { stations: &stations, board: &board, scale: Scale::Fahrenheit, kind: JobKind::Replace };
        let settings = Settings::from_inputs(inputs, &shop);
        let air = inputs.settings.air.expect("the demo heats with air");
        let set = f64::round(air.set.in_celsius() * 1.8 + 32.0);
        assert_eq!((settings.air.map(|air| air.set), settings.unit), (Some(set.to_string()), "°F"));
        assert_eq!(settings.rows, ["pins", "anchors", "every joint"]);
        assert!(settings.nozzles.iter().any(|n| *n == air.nozzle.in_mm().to_string()));
        assert!(settings.preheat.is_empty() && settings.shields.is_empty());
    }
}
