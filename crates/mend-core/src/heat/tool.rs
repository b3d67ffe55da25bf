//! The hot-air tool: what a person sets, and what the station makes of it.

use serde::{Deserialize, Serialize};

use super::display::Display;
use super::jet::JetLaw;
use super::motion::Motion;
use super::unknowns::EIGHT_IN_TEN;
use crate::board::{Face, Point, Rect};
use crate::units::{Flow, Length, Temperature};

/// The settings of one hot-air pass.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct HotAir {
    /// What the station is set to.
    #[serde(rename = "set_c")]
    pub set: Temperature,
    /// What the station's flow reads.
    #[serde(rename = "flow_lpm")]
    pub flow: Flow,
    /// Outlet diameter; a bare outlet is 20 mm or more.
    #[serde(rename = "nozzle_mm")]
    pub nozzle: Length,
    /// Outlet to board.
    #[serde(rename = "distance_mm")]
    pub distance: Length,
    /// The face the air meets.
    pub face: Face,
    /// Held still or kept moving.
    pub motion: Motion,
    /// Where it is aimed, from the middle of the part, mm: bare copper beside it for air that only warms.
    #[serde(rename = "aim_mm", default, skip_serializing_if = "is_middle")]
    pub aim: [f64; 2],
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

/// A transfer that is off by a factor is as a flow that is off by this power of it: h goes with Re^0.55 about where hand
/// tools work (T, Martin).
const FLOW_FOR_TRANSFER: f64 = 1.0 / 0.55;

/// A hot-air station as the shop owns it.
#[derive(Debug, Clone, PartialEq)]
pub struct Station {
    /// What the shop calls it.
    pub name: String,
    /// Fan or pump.
    pub blower: Blower,
    /// Set temperatures it takes.
    pub set_range: (Temperature, Temperature),
    /// Flows it gives, as far as its display says.
    pub flow_range: (Flow, Flow),
    /// Outlets owned, bare one included.
    pub nozzles: Vec<Length>,
    /// Heater power where known, W.
    pub heater_w: Option<f64>,
    /// Jet transfer against the law of [`super::jet`]: 1 as by the book. From the probe, else 1.
    pub jet_scale: f64,
    /// Logarithmic spread of that: 0.25 blind, about 0.1 after a probe.
    pub jet_spread: f64,
    /// Logarithmic spread of real against displayed flow: 0.15 blind, 0.05 when measured.
    pub flow_spread: f64,
    /// What it shows of its flow.
    pub display: Display,
}

impl Station {
    /// Its jet's law, the transfer scaled by `jet` (1 as it is known).
    pub fn law(&self, jet: f64) -> JetLaw {
        let law = JetLaw::of(self.blower);
        JetLaw { scale: law.scale * self.jet_scale * jet, heater_w: self.heater_w, ..law }
    }

    /// The widest outlet owned: the bare one.
    pub fn widest_outlet(&self) -> Length {
        self.nozzles.iter().copied().fold(Length::mm(0.0), |a, b| if b > a { b } else { a })
    }

    /// Between which flows, on its own display, eight in ten stations of this kind would be that heat as this one is said
    /// to: what is unknown of the flow and, as a flow, of the jet's transfer.
    pub fn real_flow(&self, shown: Flow) -> (Flow, Flow) {
        let spread = (EIGHT_IN_TEN * self.flow_spread.hypot(self.jet_spread * FLOW_FOR_TRANSFER)).exp();
        let shown = shown.in_litres_per_minute();
        (Flow::litres_per_minute(shown / spread), Flow::litres_per_minute(shown * spread))
    }

    /// Has anybody measured it? If not, predictions are wide and the product says so.
    pub fn is_measured(&self) -> bool {
        self.jet_spread < 0.2
    }
}
