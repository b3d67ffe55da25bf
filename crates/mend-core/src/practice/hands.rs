//! What hands can do, and what they hold at the moment.

use serde::{Deserialize, Serialize};

use super::scene::PracticeScene;
use crate::board::{Face, Point};
use crate::heat::at_work::jet_of;
use crate::heat::blowing::Blowing;
use crate::heat::boundary::{ActiveTools, TipDrive};
use crate::heat::motion::Motion;
use crate::heat::network::Network;
use crate::heat::parameters::ParameterSample;
use crate::heat::tool::HotAir;
use crate::units::{Flow, Length, Temperature};

/// Nozzle to board, mm.
pub const DISTANCES_MM: (f64, f64) = (3.0, 60.0);
/// A pull, N.
pub const MOST_PULL_N: f64 = 8.0;
/// What an iron may be set to, °C.
pub const IRON_C: (f64, f64) = (150.0, 450.0);
/// A tip that comes this near to a joint is on it, mm.
pub const TIP_REACHES_MM: f64 = 2.0;
/// The nozzle may leave the board by so much, mm.
const BEYOND_MM: f64 = 30.0;

/// Something that hands do.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[serde(tag = "kind", rename_all = "kebab-case", deny_unknown_fields)]
pub enum HandMove {
    /// The nozzle goes over a place, mm.
    Aim {
        /// From the left.
        x_mm: f64,
        /// From the near edge.
        y_mm: f64,
    },
    /// How far it is held.
    Distance {
        /// Nozzle to board.
        mm: f64,
    },
    /// What the air is set to.
    Set {
        /// °C.
        celsius: f64,
    },
    /// How much it blows.
    Flow {
        /// L/min, as displayed.
        litres: f64,
    },
    /// Another nozzle.
    Nozzle {
        /// Diameter.
        mm: f64,
    },
    /// From which side.
    From {
        /// The face that it meets.
        face: Face,
    },
    /// The air is on or off.
    Air {
        /// On?
        on: bool,
    },
    /// Tweezers hold the part, without a pull, or let it go.
    Grip {
        /// Hold?
        on: bool,
    },
    /// They pull it up.
    Pull {
        /// 0-8 N.
        newton: f64,
    },
    /// Tweezers touch whatever stands at a place.
    Touch {
        /// From the left, mm.
        x_mm: f64,
        /// From the near edge, mm.
        y_mm: f64,
    },
    /// The tip goes onto the nearest joint, where one is in reach.
    Iron {
        /// From the left, mm.
        x_mm: f64,
        /// From the near edge, mm.
        y_mm: f64,
    },
    /// The tip is lifted.
    Lift,
    /// What the iron is set to.
    IronSet {
        /// °C.
        celsius: f64,
    },
    /// Fresh braid under the tip, or none.
    Braid {
        /// Under it?
        on: bool,
    },
    /// Fresh metal is fed to the joint under the tip.
    Wire,
    /// Tape goes over what stands at a place, or comes off it: before anything is hot.
    Cover {
        /// From the left, mm.
        x_mm: f64,
        /// From the near edge, mm.
        y_mm: f64,
    },
    /// It is done.
    Finish,
}

impl HandMove {
    /// Is it done before the clock runs?
    pub fn is_before(self) -> bool {
        matches!(self, Self::Cover { .. })
    }
}

/// Something that hands did, with the step in which they did it.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct HandEvent {
    /// After so many steps.
    pub tick: u32,
    /// What.
    pub does: HandMove,
}

/// What hands hold at the moment.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Hands {
    /// Where the axis of the nozzle meets the board, mm.
    pub aim: Point,
    /// Nozzle to board, mm.
    pub distance_mm: f64,
    /// °C.
    pub set_c: f64,
    /// L/min.
    pub flow: f64,
    /// mm.
    pub nozzle_mm: f64,
    /// The face that the air meets.
    pub face: Face,
    /// Is the air on?
    pub blows: bool,
    /// Do tweezers hold the part?
    pub grips: bool,
    /// How they pull, N.
    pub pull_n: f64,
    /// The joint that the tip is on.
    pub tip_on: Option<usize>,
    /// °C.
    pub iron_c: f64,
    /// Braid under the tip?
    pub braid: bool,
}

impl Hands {
    /// Before anything is done: everything off, the nozzle far over the middle of the part.
    pub fn at_rest(scene: &PracticeScene) -> Self {
        let station = &scene.station;
        let middle = |low: f64, high: f64| f64::midpoint(low, high).round();
        Self {
            aim: scene.board.connector.body.centre,
            distance_mm: 30.0,
            set_c: middle(station.set_range.0.in_celsius(), station.set_range.1.in_celsius()),
            flow: middle(station.flow_range.0.in_litres_per_minute(), station.flow_range.1.in_litres_per_minute()),
            nozzle_mm: station.widest_nozzle().in_mm(),
            face: scene.board.connector.face,
            blows: false,
            grips: false,
            pull_n: 0.0,
            tip_on: None,
            iron_c: 350.0,
            braid: false,
        }
    }

    /// After a move; what can't be is as near to it as can be.
    pub fn after(self, does: HandMove, scene: &PracticeScene) -> Self {
        let station = &scene.station;
        match does {
            HandMove::Aim { x_mm, y_mm } => Self { aim: near_board(x_mm, y_mm, scene), ..self },
            HandMove::Distance { mm } => Self { distance_mm: within(mm, DISTANCES_MM, self.distance_mm), ..self },
            HandMove::Set { celsius } => {
                let range = (station.set_range.0.in_celsius(), station.set_range.1.in_celsius());
                Self { set_c: within(celsius, range, self.set_c), ..self }
            }
            HandMove::Flow { litres } => {
                let (low, high) = station.flow_range;
                let range = (low.in_litres_per_minute(), high.in_litres_per_minute());
                Self { flow: within(litres, range, self.flow), ..self }
            }
            HandMove::Nozzle { mm } => {
                let owned = station.nozzles.iter().map(|nozzle| nozzle.in_mm());
                let nearest = owned.min_by(|a, b| (a - mm).abs().total_cmp(&(b - mm).abs()));
                Self { nozzle_mm: nearest.unwrap_or(self.nozzle_mm), ..self }
            }
            HandMove::From { face } => Self { face, ..self },
            HandMove::Air { on } => Self { blows: on, ..self },
            HandMove::Grip { on } => Self { grips: on, pull_n: 0.0, ..self },
            HandMove::Pull { newton } => {
                let pull_n = within(newton, (0.0, MOST_PULL_N), self.pull_n);
                Self { pull_n, grips: self.grips || pull_n > 0.0, ..self }
            }
            HandMove::Iron { x_mm, y_mm } => Self { tip_on: joint_at(Point { x: x_mm, y: y_mm }, scene), ..self },
            HandMove::Lift => Self { tip_on: None, ..self },
            HandMove::IronSet { celsius } => Self { iron_c: within(celsius, IRON_C, self.iron_c), ..self },
            HandMove::Braid { on } => Self { braid: on, ..self },
            HandMove::Touch { .. } | HandMove::Wire | HandMove::Cover { .. } | HandMove::Finish => self,
        }
    }

    /// The jet as it really is, where the air is on.
    pub fn blowing(&self, scene: &PracticeScene, truth: &ParameterSample) -> Option<Blowing> {
        let air = HotAir {
            set: Temperature::celsius(self.set_c),
            flow: Flow::litres_per_minute(self.flow),
            nozzle: Length::mm(self.nozzle_mm),
            distance: Length::mm(self.distance_mm),
            face: self.face,
            motion: Motion::Still,
            aim: [0.0, 0.0],
            approach: None,
            tilt: None,
        };
        let [x, y] = truth.aim_mm;
        let path = vec![Point { x: self.aim.x + x, y: self.aim.y + y }];
        let jet = || jet_of(&scene.station, scene.ambient, &air, truth);
        self.blows.then(|| Blowing { jet: jet(), face: self.face, path, tilt: None })
    }

    /// All that works on the board.
    pub(super) fn tools(&self, scene: &PracticeScene, network: &Network, truth: &ParameterSample) -> ActiveTools {
        let tip = self.tip_on.and_then(|joint| tip_of(network, joint));
        let drive = TipDrive { set: self.iron_rise(scene), to_tip: scene.station.iron.to_tip };
        let tips = tip.map(|tip| (tip, drive)).into_iter().collect();
        ActiveTools { blowing: self.blowing(scene, truth), preheater: None, tips }
    }

    /// What the iron is set to over ambient, K.
    pub(super) fn iron_rise(&self, scene: &PracticeScene) -> f64 {
        self.iron_c - scene.ambient.in_celsius()
    }
}

/// The tip that is held on a joint.
pub(super) fn tip_of(network: &Network, joint: usize) -> Option<usize> {
    network.tips.get(joint)?.first()?.first().copied()
}

/// The joint that a tip at a place is on.
fn joint_at(at: Point, scene: &PracticeScene) -> Option<usize> {
    let joints = scene.board.connector.joints.iter().enumerate().filter(|(_, joint)| !joint.hidden);
    let near = joints.map(|(k, joint)| (k, joint.at.distance_to(at))).filter(|(_, apart)| *apart <= TIP_REACHES_MM);
    near.min_by(|a, b| a.1.total_cmp(&b.1)).map(|(k, _)| k)
}

fn near_board(x: f64, y: f64, scene: &PracticeScene) -> Point {
    let (bounds, was) = (scene.board.outline.bounds(), scene.board.connector.body.centre);
    let along = (bounds.left() - BEYOND_MM, bounds.right() + BEYOND_MM);
    let across = (bounds.near() - BEYOND_MM, bounds.far() + BEYOND_MM);
    Point { x: within(x, along, was.x), y: within(y, across, was.y) }
}

/// What is no number changes nothing.
fn within(value: f64, range: (f64, f64), was: f64) -> f64 {
    if value.is_finite() { value.clamp(range.0, range.1) } else { was }
}
