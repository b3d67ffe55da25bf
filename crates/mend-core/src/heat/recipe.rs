//! A recipe: the passes one after the other, what helps at the same time, and the shields that stay on throughout.

use serde::{Deserialize, Serialize};

use super::iron::Iron;
use super::motion::Motion;
use super::plate::Plate;
use super::shield::Shield;
use super::tool::{HotAir, is_middle};
use crate::board::Face;
use crate::units::{Duration, Flow, Length, Temperature};

/// The tools of one release: passes before, then the air under which the part comes away.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[serde(from = "Written", into = "Written")]
pub struct Recipe {
    /// The last pass: the part comes away under this air.
    pub air: HotAir,
    /// When to give up if nothing is said sooner: the longest that the last pass lasts.
    pub longest: Duration,
    /// What comes before, in order.
    pub before: Vec<Pass>,
    /// What helps during the last pass.
    pub with: Helpers,
    /// What lies over neighbours, all the time.
    pub shields: Vec<Shield>,
}

/// As it is written: the air's own fields stand beside the rest. Spelt out, not flattened: a reader that flattens can't say
/// which field was wrong.
#[derive(Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
struct Written {
    set_c: Temperature,
    flow_lpm: Flow,
    nozzle_mm: Length,
    distance_mm: Length,
    face: Face,
    motion: Motion,
    #[serde(default, skip_serializing_if = "is_middle")]
    aim_mm: [f64; 2],
    longest_s: Duration,
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    before: Vec<Pass>,
    #[serde(default, skip_serializing_if = "Helpers::is_none")]
    with: Helpers,
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    shields: Vec<Shield>,
}

impl From<Written> for Recipe {
    fn from(w: Written) -> Self {
        let (set, flow, nozzle, distance) = (w.set_c, w.flow_lpm, w.nozzle_mm, w.distance_mm);
        let air = HotAir { set, flow, nozzle, distance, face: w.face, motion: w.motion, aim: w.aim_mm };
        Self { air, longest: w.longest_s, before: w.before, with: w.with, shields: w.shields }
    }
}

impl From<Recipe> for Written {
    fn from(recipe: Recipe) -> Self {
        let Recipe { air, longest, before, with, shields } = recipe;
        let (set_c, flow_lpm, nozzle_mm, distance_mm) = (air.set, air.flow, air.nozzle, air.distance);
        let (face, motion, aim_mm, longest_s) = (air.face, air.motion, air.aim, longest);
        Self { set_c, flow_lpm, nozzle_mm, distance_mm, face, motion, aim_mm, longest_s, before, with, shields }
    }
}

/// A pass before the last: a soak, a plate alone, or a pause with nothing on.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
pub struct Pass {
    /// Hot air, if any.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub air: Option<HotAir>,
    /// What helps at the same time.
    #[serde(default, skip_serializing_if = "Helpers::is_none")]
    pub with: Helpers,
    /// How long.
    #[serde(rename = "lasts_s")]
    pub lasts: Duration,
    /// Until the next tool is at work: nothing blows meanwhile, a plate stays.
    #[serde(rename = "change_s", default)]
    pub change: Duration,
}

/// What works beside the air.
#[derive(Debug, Clone, Default, PartialEq, Serialize, Deserialize)]
pub struct Helpers {
    /// A preheater.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub plate: Option<Plate>,
    /// An iron.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub iron: Option<Iron>,
}

impl Helpers {
    /// Nothing beside the air?
    pub fn is_none(&self) -> bool {
        self.plate.is_none() && self.iron.is_none()
    }
}

impl From<HotAir> for Recipe {
    /// One pass of up to four minutes, nothing else.
    fn from(air: HotAir) -> Self {
        let longest = Duration::seconds(240.0);
        Self { air, longest, before: Vec::new(), with: Helpers::default(), shields: Vec::new() }
    }
}

impl Recipe {
    /// From the first tool to the last pass, whole seconds.
    pub fn seconds_before(&self) -> usize {
        self.before.iter().map(Pass::seconds).sum()
    }

    /// From the first tool to giving up, whole seconds.
    pub fn seconds(&self) -> usize {
        self.seconds_before() + self.longest.in_seconds() as usize
    }
}

impl Pass {
    /// How long with the change after it, whole seconds.
    pub fn seconds(&self) -> usize {
        self.lasts.in_seconds() as usize + self.change.in_seconds() as usize
    }

    /// What it is, in a word or two.
    pub fn name(&self) -> &'static str {
        match (&self.air, &self.with.plate, &self.with.iron) {
            (Some(_), Some(_), _) => "air and plate",
            (Some(_), None, _) => "air",
            (None, Some(_), _) => "plate",
            (None, None, Some(_)) => "iron",
            (None, None, None) => "pause",
        }
    }
}
