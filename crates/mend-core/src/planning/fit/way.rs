//! A way to solder the new part on: what the heat is for then, what stands against it, and where its search begins.

use serde::{Deserialize, Serialize};

use crate::board::Face;
use crate::heat::purpose::Purpose;
use crate::method::start::{self, Start};
use crate::method::subject::Subject;
use crate::units::Duration;

/// Seconds on each pin that are tried (E, 2-6: until it is seen to wet).
const DWELLS_S: [f64; 3] = [2.0, 4.0, 6.0];

/// A way to solder the new part on.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, Serialize, Deserialize)]
#[serde(rename_all = "kebab-case")]
pub enum FitWay {
    /// In its place, hot air on its own face.
    AirFromAbove,
    /// In its place, hot air on the far face.
    AirFromBelow,
    /// In its place, an iron from pin to pin.
    PinByPin,
    /// Set on pads that the air keeps liquid.
    FloatedIn,
    /// Its legs dropped through holes that the air keeps liquid.
    DroppedIn,
}

/// Why a way can't be gone here.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[serde(tag = "kind", rename_all = "kebab-case")]
pub enum FitObstacle {
    /// The station has no nozzle.
    NoNozzle,
    /// The shop has no tip.
    NoIronTip,
    /// Every tip is too wide for the pitch.
    TipsTooWide { pitch_mm: f64 },
    /// Hidden joints that no tip reaches.
    HiddenFromTip { joints: usize },
    /// Holes that keep it from floating.
    HoldsInHoles { holes: usize },
    /// Surface joints, which nothing drops into.
    NoHole,
    /// Surface joints that would smear while the legs find their holes.
    SurfaceJoints { joints: usize },
}

impl FitWay {
    /// All of them.
    pub const ALL: [Self; 5] =
        [Self::AirFromAbove, Self::AirFromBelow, Self::PinByPin, Self::FloatedIn, Self::DroppedIn];

    /// As it stands in an address.
    pub const fn key(self) -> &'static str {
        match self {
            Self::AirFromAbove => "air-from-above",
            Self::AirFromBelow => "air-from-below",
            Self::PinByPin => "pin-by-pin",
            Self::FloatedIn => "floated-in",
            Self::DroppedIn => "dropped-in",
        }
    }

    /// What the heat is for.
    pub const fn purpose(self) -> Purpose {
        match self {
            Self::FloatedIn | Self::DroppedIn => Purpose::SetOn,
            _ => Purpose::Fit,
        }
    }

    /// What stands against it here.
    pub fn obstacle(self, subject: &Subject<'_>) -> Option<FitObstacle> {
        let (joints, holes, hidden) = (subject.joints().len(), subject.holes(), subject.hidden());
        let no_nozzle = subject.station.nozzles.is_empty().then_some(FitObstacle::NoNozzle);
        match self {
            Self::AirFromAbove | Self::AirFromBelow => no_nozzle,
            Self::PinByPin if subject.equipment.tips.is_empty() => Some(FitObstacle::NoIronTip),
            Self::PinByPin if hidden > 0 => Some(FitObstacle::HiddenFromTip { joints: hidden }),
            Self::PinByPin if subject.fine_tips().is_empty() => {
                subject.pitch_mm().map(|pitch_mm| FitObstacle::TipsTooWide { pitch_mm })
            }
            Self::PinByPin => None,
            Self::FloatedIn if holes > 0 => Some(FitObstacle::HoldsInHoles { holes }),
            Self::FloatedIn => no_nozzle,
            Self::DroppedIn if holes == 0 => Some(FitObstacle::NoHole),
            Self::DroppedIn if holes < joints => Some(FitObstacle::SurfaceJoints { joints: joints - holes }),
            Self::DroppedIn => no_nozzle,
        }
    }

    /// Where the search for its settings begins.
    pub(super) fn starts(self, subject: &Subject<'_>) -> Vec<Start> {
        let air = |face: Face| vec![start::air(subject, subject.composition.clone(), face)];
        match self {
            Self::AirFromAbove => air(subject.board.connector.face),
            Self::AirFromBelow | Self::FloatedIn | Self::DroppedIn => air(subject.board.hanging()),
            Self::PinByPin => DWELLS_S.map(|dwell| pin_by_pin(subject, Duration::seconds(dwell))).into(),
        }
    }
}

/// The iron from joint to joint, so long on each, for as long as two rounds take.
fn pin_by_pin(subject: &Subject<'_>, dwell: Duration) -> Start {
    let mut start = start::iron(subject, subject.composition.clone(), None).with_tips(subject.fine_tips());
    if let Some(iron) = &mut start.recipe.during.iron {
        iron.dwell = dwell;
        let round = iron.visits(subject.board).len() as f64 * dwell.in_seconds();
        start.recipe.longest = Duration::seconds((2.0 * round).clamp(20.0, 300.0));
    }
    start
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::method::fixture::shop;

    fn against(way: FitWay, kind: &str) -> Option<FitObstacle> {
        way.obstacle(&shop(kind).subject())
    }

    #[test]
    fn legs_drop_into_holes_and_pads_let_a_part_float() {
        assert_eq!(against(FitWay::DroppedIn, "power-jack"), None);
        assert!(matches!(against(FitWay::FloatedIn, "power-jack"), Some(FitObstacle::HoldsInHoles { .. })));
        assert_eq!(against(FitWay::FloatedIn, "flex"), None);
        assert_eq!(against(FitWay::DroppedIn, "flex"), Some(FitObstacle::NoHole));
        assert!(matches!(against(FitWay::DroppedIn, "usb-c-top"), Some(FitObstacle::SurfaceJoints { .. })));
    }

    #[test]
    fn an_iron_fits_what_it_gets_to_with_a_tip_that_is_fine_enough() {
        assert_eq!(against(FitWay::PinByPin, "power-jack"), None);
        assert!(matches!(against(FitWay::PinByPin, "usb-c-top"), Some(FitObstacle::HiddenFromTip { joints: 12 })));
        let mut jack = shop("power-jack");
        jack.equipment.tips.clear();
        assert_eq!(FitWay::PinByPin.obstacle(&jack.subject()), Some(FitObstacle::NoIronTip));
        assert!(FitWay::ALL.iter().all(|way| way.purpose().fits()));
    }
}
