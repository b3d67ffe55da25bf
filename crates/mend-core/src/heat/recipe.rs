//! A recipe: the passes one after the other, what helps at the same time, and the shields that stay on throughout.

use serde::{Deserialize, Serialize};

use super::iron::Iron;
use super::plate::Plate;
use super::shield::Shield;
use super::tool::HotAir;
use crate::units::Duration;

/// The tools of one release: passes before, then the air under which the part comes away.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
pub struct Recipe {
    /// The last pass: the part comes away under this air.
    #[serde(flatten)]
    pub air: HotAir,
    /// When to give up if nothing is said sooner: the longest that the last pass lasts.
    #[serde(rename = "longest_s")]
    pub longest: Duration,
    /// What comes before, in order.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub before: Vec<Pass>,
    /// What helps during the last pass.
    #[serde(default, skip_serializing_if = "Helpers::is_none")]
    pub with: Helpers,
    /// What lies over neighbours, all the time.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub shields: Vec<Shield>,
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
