//! What heats and what protects, each from its group of fields; none where a group was not sent.

use mend_core::board::Face;
use mend_core::heat::bridge::Bridge;
use mend_core::heat::iron::{Iron, USUAL_DWELL};
use mend_core::heat::motion::Motion;
use mend_core::heat::preheater::{Coupling, Preheater};
use mend_core::heat::recipe::{HeatingAids, HeatingStage, Held};
use mend_core::heat::shield::{Shield, ShieldKind};
use mend_core::heat::tool::{Approach, ComesNearWhen, HotAir, Tilt};
use mend_core::units::{Duration, Flow, Length, Temperature};

use super::{FormInput, USUAL_APPROACH_S};

impl FormInput {
    pub(super) fn air(&mut self, at: &str) -> HotAir {
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

    pub(super) fn helpers(&mut self, at: &str) -> HeatingAids {
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

    pub(super) fn stage(&mut self, at: &str) -> Option<HeatingStage> {
        self.get(&format!("{at}lasts"))?;
        let air = self.get(&format!("{at}set")).is_some();
        Some(HeatingStage {
            air: air.then(|| self.air(at)),
            during: self.helpers(at),
            lasts: Duration::seconds(self.number(&format!("{at}lasts"))),
            change: Duration::seconds(self.number(&format!("{at}change"))),
        })
    }

    pub(super) fn shield(&mut self, at: &str) -> Option<Shield> {
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

    pub(super) fn bridge(&mut self) -> Option<Bridge> {
        self.get("bridge-bead")?;
        Some(Bridge { wire_mm: self.number("bridge-wire"), bead_mm2: self.number("bridge-bead") })
    }

    /// An empty field means ambient temperature.
    pub(super) fn begins_at(&mut self) -> Option<Temperature> {
        let typed = self.get("begins-at")?.trim();
        (!typed.is_empty()).then(|| self.temperature("begins-at"))
    }

    /// What a form without the question means: a hand.
    pub(super) fn held(&mut self) -> Held {
        if self.get("held").is_some() { self.word("held", Held::Hand) } else { Held::Hand }
    }
}
