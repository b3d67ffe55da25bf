//! The plan: what its page shows and the command prints.

use serde::{Deserialize, Serialize};

use super::abort_time::AbortTime;
use super::band::{Band, TimeBand};
use super::laminate::{LaminateHeat, PadLift};
use super::limited_by::LimitedBy;
use super::margin::Margin;
use super::next_move::Move;
use super::sensitivity::Sensitivity;
use super::small_runs::SmallRun;
use crate::finding::Finding;
use crate::heat::iron_heater::IronHeater;
use crate::heat::purpose::Purpose;
use crate::heat::recipe::Recipe;

/// Raised whenever the same inputs would give other figures: stored plans of another engine are computed anew.
pub const ENGINE: u32 = 8;

/// Is there a window?
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[serde(rename_all = "kebab-case")]
pub enum WindowState {
    /// Nine samples in ten melt before anything is damaged, and nothing is near its limit.
    Open,
    /// At least half of them.
    Tight,
    /// Fewer.
    Closed,
}

/// When one joint melts.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
pub struct JointMelt {
    /// The joint.
    pub joint: String,
    /// When it is all liquid.
    pub melts: TimeBand,
}

/// Temperatures of both faces over the grid.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
pub struct HeatMap {
    /// Cell borders along x, mm.
    pub x_mm: Vec<f64>,
    /// Cell borders along y, mm.
    pub y_mm: Vec<f64>,
    /// Top face, °C, row by row; outside the outline null.
    pub top_c: Vec<Option<f32>>,
    /// Bottom face, the same.
    pub bottom_c: Vec<Option<f32>>,
}

/// In how many samples every joint melts before anything is damaged.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
pub struct WorksIn {
    /// So many.
    pub works: usize,
    /// Of so many.
    pub of: usize,
}

/// The plan that the page shows and the command prints.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
pub struct Plan {
    /// Which engine made it.
    pub engine: u32,
    /// What is done. Its times count from the beginning of the last pass.
    #[serde(alias = "air")]
    pub recipe: Recipe,
    /// What the heat is for.
    #[serde(default)]
    pub purpose: Purpose,
    /// The alloy in the joints.
    pub alloy: String,
    /// What is fed to it, if anything.
    pub fed: Option<String>,
    /// Where the last joint melts, °C.
    pub melts_at_c: f64,
    /// How many samples stand behind every band; a band holds eight in ten.
    pub samples: usize,
    /// Is there a window?
    pub window: WindowState,
    /// Share of samples in which every joint melts before anything is damaged, 0-1.
    pub chance: f64,
    /// The last joint, and what comes nearest to its limit.
    #[serde(alias = "binds")]
    pub limited_by: LimitedBy,
    /// When the part comes away.
    pub release: TimeBand,
    /// When to stop.
    #[serde(alias = "stop")]
    pub abort: AbortTime,
    /// From air off until every joint is solid, s. None where no sample released.
    #[serde(alias = "hold_s")]
    pub solid_after_s: Option<Band>,
    /// From air off until the board is too cool to wick on, s.
    #[serde(alias = "warm_s")]
    pub wickable_for_s: Option<Band>,
    /// What the laminate bears.
    #[serde(default)]
    pub laminate: Option<LaminateHeat>,
    /// What pulling early would cost.
    #[serde(default)]
    pub pad_lift: Option<PadLift>,
    /// The best single change that was tried.
    #[serde(default)]
    pub next_move: Option<Move>,
    /// Which guesses widen the band, the one that does most first.
    #[serde(default)]
    pub guesses: Vec<Sensitivity>,
    /// Every joint.
    pub joints: Vec<JointMelt>,
    /// Everything against its line, tightest first.
    pub margins: Vec<Margin>,
    /// Of a fit: holes cleared and anchors flowed through.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub small_runs: Vec<SmallRun>,
    /// What drives the tips of irons.
    #[serde(default, skip_serializing_if = "IronHeater::is_usual")]
    pub heater: IronHeater,
    /// Both faces at release, or at the longest heating if it never comes.
    pub map: HeatMap,
    /// What the rules have to say.
    pub findings: Vec<Finding>,
}

impl Plan {
    /// In how many of its samples it works.
    pub fn works_in(&self) -> WorksIn {
        WorksIn { works: (self.chance * self.samples as f64).round() as usize, of: self.samples }
    }
}
