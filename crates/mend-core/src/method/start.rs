//! Where the search for settings begins: a recipe, what the joints then hold, and what may be varied.

use super::equipment::{Equipment, stoutest};
use super::subject::Subject;
use super::usual;
use crate::board::Face;
use crate::heat::bridge::Bridge;
use crate::heat::iron::{EVERY_ROW, Iron, USUAL_DWELL};
use crate::heat::motion::Motion;
use crate::heat::recipe::{HeatingAids, Recipe};
use crate::heat::tool::HotAir;
use crate::materials::Metal;
use crate::solder::{Feed, JointComposition, Wire};
use crate::units::{Duration, Flow, Length, Temperature};

/// Shares of a feed that are tried: what a pad or a full hole takes at once, and half of the joint (E).
const SHARES: [f64; 2] = [0.5, 0.3];

/// Nobody holds an iron on pads for longer, s (E: they lift).
const LONGEST_IRON_S: f64 = 90.0;

/// A beginning.
#[derive(Debug, Clone, PartialEq)]
pub struct Start {
    /// What the joints hold and are fed.
    pub composition: JointComposition,
    /// The recipe that is varied.
    pub recipe: Recipe,
    /// What is varied.
    pub vary: Vary,
}

impl Start {
    /// With these tips alone, the stoutest first.
    pub(crate) fn with_tips(mut self, tips: Vec<Length>) -> Self {
        if let (Some(iron), Some(tip)) = (&mut self.recipe.during.iron, stoutest(&tips)) {
            iron.tip = tip;
        }
        if let Vary::Iron { tips: varied, .. } = &mut self.vary {
            *varied = tips;
        }
        self
    }
}

/// What the search may turn.
#[derive(Debug, Clone, PartialEq)]
pub enum Vary {
    /// The air of the last stage.
    Air(AirSpace),
    /// The iron.
    Iron {
        /// Set temperatures.
        sets: Vec<Temperature>,
        /// Tips.
        tips: Vec<Length>,
    },
}

/// Airs to try; set temperatures come from one run each, so there is no list of them.
#[derive(Debug, Clone, PartialEq)]
pub struct AirSpace {
    /// Nozzles.
    pub nozzles: Vec<Length>,
    /// Nozzle to board.
    pub distances: Vec<Length>,
    /// Flows.
    pub flows: Vec<Flow>,
    /// Ways to move.
    pub motions: Vec<Motion>,
    /// No hotter than this.
    pub hottest: Temperature,
}

impl AirSpace {
    /// Everything the station gives, at distances and with motions as they suit a face.
    pub fn from_subject(subject: &Subject<'_>, distances: &[f64], motions: &[Motion]) -> Self {
        let station = subject.station;
        let (weak, strong) = station.flow_range;
        let (weak, strong) = (weak.in_litres_per_minute(), strong.in_litres_per_minute());
        let flow = |share: f64| Flow::litres_per_minute((weak + (strong - weak) * share).round());
        Self {
            nozzles: station.nozzles.clone(),
            distances: distances.iter().copied().map(Length::mm).collect(),
            flows: [0.1, 0.3, 0.55, 0.8, 1.0].map(flow).to_vec(),
            motions: motions.to_vec(),
            hottest: station.set_range.1,
        }
    }

    /// No hotter than a line.
    pub fn mild(self, hottest: Temperature) -> Self {
        Self { hottest: if hottest < self.hottest { hottest } else { self.hottest }, ..self }
    }

    /// The same with every other flow and one distance and motion: a first look.
    pub fn thin(self) -> Self {
        let middle = |v: Vec<Length>| v.get(v.len() / 2).copied().into_iter().collect();
        let flows = self.flows.iter().copied().skip(1).step_by(2).collect();
        let motions = self.motions.into_iter().take(1).collect();
        Self { distances: middle(self.distances), flows, motions, ..self }
    }
}

/// From below through the board: distances, mm, and motions.
pub const BELOW: (&[f64], &[Motion]) = (&[15.0, 25.0, 40.0], &[Motion::Still]);
/// From above, always moving.
pub const ABOVE: (&[f64], &[Motion]) = (&[8.0, 15.0, 25.0], &[Motion::Sweeping, Motion::Circle]);

/// Air on a face, nothing else, for joints that hold this.
pub(crate) fn air(subject: &Subject<'_>, composition: JointComposition, face: Face) -> Start {
    let below = face == subject.board.hanging();
    let recipe = Recipe::from(HotAir { face, ..usual::air(subject.board, subject.station) });
    let (distances, motions) = if below { BELOW } else { ABOVE };
    let vary = Vary::Air(AirSpace::from_subject(subject, distances, motions));
    Start { composition, recipe, vary }
}

/// The iron on every joint that it gets to, with what joins them.
pub(crate) fn iron(subject: &Subject<'_>, composition: JointComposition, bridge: Option<Bridge>) -> Start {
    let tip = subject.equipment.stoutest().unwrap_or(Length::mm(2.0));
    let iron = Some(Iron { set: Temperature::celsius(380.0), tip, row: EVERY_ROW.to_owned(), dwell: USUAL_DWELL });
    let longest = Duration::seconds(LONGEST_IRON_S);
    let recipe = Recipe { bridge, longest, ..Recipe::from(HeatingAids { iron, ..HeatingAids::default() }) };
    Start { composition, recipe, vary: irons(subject.equipment) }
}

/// Tips owned, at the settings that irons are used at (E).
pub(crate) fn irons(equipment: &Equipment) -> Vary {
    let sets = [320.0, 350.0, 380.0, 410.0].map(Temperature::celsius).to_vec();
    Vary::Iron { sets, tips: equipment.tips.clone() }
}

/// The charge without anything fed.
pub(crate) fn unfed(composition: &JointComposition) -> JointComposition {
    JointComposition { feed: None, ..composition.clone() }
}

/// The same joints fed with an alloy, to the largest of the tried shares that they take; none where they take none.
pub(crate) fn fed(subject: &Subject<'_>, alloy: &Metal) -> Option<JointComposition> {
    let of = |share: f64| {
        let feed =
            Feed { metal: alloy.clone(), wire: Wire::USUAL, mixing_fraction: share, rows: subject.reachable_rows() };
        JointComposition { feed: Some(feed), ..subject.composition.clone() }
    };
    SHARES.into_iter().map(of).find(|composition| {
        composition.check(subject.board).iter().all(|finding| finding.severity != crate::finding::Severity::Blocking)
    })
}
