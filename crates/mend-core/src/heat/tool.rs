//! The hot-air tool: what a person sets, and what the station makes of it.

use serde::{Deserialize, Serialize};

use super::motion::Motion;
use crate::board::{Face, Point, Rect};
use crate::units::{Duration, Flow, Length, Temperature};

/// The settings of one hot-air stage.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct HotAir {
    /// What the station is set to.
    #[serde(rename = "set_c")]
    pub set: Temperature,
    /// What the station's flow reads.
    #[serde(rename = "flow_lpm")]
    pub flow: Flow,
    /// Nozzle diameter; a bare nozzle is 20 mm or more.
    #[serde(rename = "nozzle_mm")]
    pub nozzle: Length,
    /// Nozzle to board.
    #[serde(rename = "distance_mm")]
    pub distance: Length,
    /// The face the air meets.
    pub face: Face,
    /// Held still or kept moving.
    pub motion: Motion,
    /// Where it is aimed, from the middle of the part, mm: bare copper beside it for air that only warms.
    #[serde(rename = "aim_mm", default, skip_serializing_if = "is_middle")]
    pub aim: [f64; 2],
    /// How it comes near, where it does not begin at its distance.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub approach: Option<Approach>,
    /// How the nozzle leans, where it does not stand upright.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub tilt: Option<Tilt>,
}

/// A nozzle that comes near: even at first, so that small things are warm before the jet is on them.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct Approach {
    /// Nozzle to board at the beginning.
    #[serde(rename = "from_mm")]
    pub from: Length,
    /// Until it is at its distance.
    #[serde(rename = "over_s")]
    pub over: Duration,
    /// What the hand waits for before it comes near.
    #[serde(default, skip_serializing_if = "ComesNearWhen::is_at_once")]
    pub when: ComesNearWhen,
}

/// What a hand waits for before it brings the nozzle near.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default, Serialize, Deserialize)]
#[serde(rename_all = "kebab-case")]
pub enum ComesNearWhen {
    /// Nothing.
    #[default]
    AtOnce,
    /// The flux on the joints smokes.
    FluxSmokes,
    /// The first joint lets go: it turns from matt to shiny.
    FirstShines,
}

impl ComesNearWhen {
    /// All of them, the earliest first.
    pub const ALL: [Self; 3] = [Self::AtOnce, Self::FluxSmokes, Self::FirstShines];

    fn is_at_once(&self) -> bool {
        *self == Self::AtOnce
    }
}

/// A nozzle that leans.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct Tilt {
    /// From upright, 0-60 degrees.
    pub lean_deg: f64,
    /// Where it blows to, degrees from the right-hand side, anticlockwise as seen from the top.
    pub towards_deg: f64,
}

pub(super) fn is_middle(aim: &[f64; 2]) -> bool {
    *aim == [0.0, 0.0]
}

impl HotAir {
    /// Places the nozzle's axis visits on a board whose part has this body, each for the same share of the time.
    pub fn path(&self, body: &Rect) -> Vec<Point> {
        let [x, y] = [body.centre.x + self.aim[0], body.centre.y + self.aim[1]];
        self.motion.path(body).into_iter().map(|(dx, dy)| Point { x: x + dx, y: y + dy }).collect()
    }
}

/// What moves the air. A fan gives way to a narrow nozzle, a pump does not.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[serde(rename_all = "kebab-case")]
pub enum Blower {
    /// Fan in the handle.
    Fan,
    /// Pump in the case.
    Pump,
}
