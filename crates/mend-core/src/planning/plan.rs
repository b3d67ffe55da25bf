//! The plan: one fine run, twenty sampled ones, and what they say together.

use serde::{Deserialize, Serialize};

use super::band::{Band, TimeBand};
use super::laminate::{LaminateHeat, PadLift};
use super::margin::Margin;
use super::next_move::Move;
use super::outcome::{Moves, Outcome};
use super::settings;
use super::stop_line::StopLine;
use crate::board::{Board, MustLive, rules};
use crate::finding::{Finding, any_blocking};
use crate::heat::covered_joint::covered_joints;
use crate::heat::recipe::Recipe;
use crate::heat::run::Case;
use crate::heat::tool::Station;
use crate::solder::{Charge, MeltTarget, leaded_into_lead_free};
use crate::units::Temperature;
use crate::watch::{Cancelled, Watch};

/// Samples behind every band.
pub const SAMPLES: usize = 20;
/// Raised whenever the same inputs would give other figures: stored plans of another engine are computed anew.
pub const ENGINE: u32 = 5;

/// What is to be planned.
#[derive(Debug, Clone, Copy)]
pub struct Order<'a> {
    /// The board.
    pub board: &'a Board,
    /// What its joints hold.
    pub charge: &'a Charge,
    /// The station.
    pub station: &'a Station,
    /// What is done with it.
    pub recipe: &'a Recipe,
    /// The room.
    pub room: Temperature,
    /// Is the part wanted alive (taken from a donor)? Then its body's limit binds.
    pub must_live: MustLive,
    /// How far it is, and whether it is still wanted.
    pub watch: &'a Watch,
}

/// Why there is no plan.
#[derive(Debug, Clone, PartialEq, thiserror::Error)]
pub enum Unplanned {
    /// The inputs can't be planned on.
    #[error("{} objections", .0.len())]
    Objections(Vec<Finding>),
    /// Nobody wants it any more.
    #[error(transparent)]
    Cancelled(#[from] Cancelled),
}

impl From<Vec<Finding>> for Unplanned {
    fn from(findings: Vec<Finding>) -> Self {
        Self::Objections(findings)
    }
}

impl Unplanned {
    /// The objections; none where it was cancelled.
    pub fn objections(self) -> Vec<Finding> {
        match self {
            Self::Objections(findings) => findings,
            Self::Cancelled(_) => Vec::new(),
        }
    }
}

impl<'a> Order<'a> {
    /// What forbids to plan it; nothing is computed for that.
    pub fn refusals(&self) -> Vec<Finding> {
        self.checked().err().unwrap_or_default()
    }

    /// What the rules have to say of its inputs; an error where that forbids to compute.
    pub(super) fn checked(&self) -> Result<Vec<Finding>, Vec<Finding>> {
        let mut findings = rules::check(self.board);
        findings.extend(settings::check(self.recipe, self.station, self.board));
        findings.extend(covered_joints(self.board, &self.recipe.shields));
        findings.extend(self.charge.check(self.board));
        if any_blocking(&findings) { Err(findings) } else { Ok(findings) }
    }

    /// The case of one of its runs.
    /// What is run of it, with joints that melt at these.
    pub fn case(&self, melting: &'a [MeltTarget]) -> Case<'a> {
        let Self { board, station, recipe, room, watch, .. } = *self;
        Case { board, melting, station, recipe, room, watch }
    }
}

/// Is there a window?
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[serde(rename_all = "kebab-case")]
pub enum Window {
    /// Nine samples in ten melt before anything is hurt, and nothing is near its limit.
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

/// The plan that the page shows and the command prints.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
pub struct Plan {
    /// Which engine made it.
    pub engine: u32,
    /// What it is for. Its times count from the beginning of the last pass.
    #[serde(alias = "air")]
    pub recipe: Recipe,
    /// The alloy in the joints.
    pub alloy: String,
    /// What is fed to it, if anything.
    pub fed: Option<String>,
    /// Where the last joint melts, °C.
    pub melts_at_c: f64,
    /// How many samples stand behind every band; a band holds eight in ten.
    pub samples: usize,
    /// Is there a window?
    pub window: Window,
    /// Share of samples in which every joint melts before anything is hurt, 0-1.
    pub chance: f64,
    /// What binds, in words.
    pub binds: String,
    /// When the part comes away.
    pub release: TimeBand,
    /// When to stop.
    pub stop: StopLine,
    /// From air off until every joint is solid, s. None where no sample released.
    pub hold_s: Option<Band>,
    /// From air off until the board is too cool to wick on, s.
    pub warm_s: Option<Band>,
    /// What the laminate bears.
    #[serde(default)]
    pub laminate: Option<LaminateHeat>,
    /// What pulling early would cost.
    #[serde(default)]
    pub pad_lift: Option<PadLift>,
    /// The best single change that was tried.
    #[serde(default)]
    pub next_move: Option<Move>,
    /// Every joint.
    pub joints: Vec<JointMelt>,
    /// Everything against its line, tightest first.
    pub margins: Vec<Margin>,
    /// Both faces at release, or at the longest heating if it never comes.
    pub map: HeatMap,
    /// What the rules have to say.
    pub findings: Vec<Finding>,
}

/// Computes the plan, or answers every blocking objection to its inputs.
pub fn plan(order: &Order<'_>) -> Result<Plan, Unplanned> {
    planned(order, Moves::Asked)
}

/// The same without looking for a better single change.
pub(super) fn plan_alone(order: &Order<'_>) -> Result<Plan, Unplanned> {
    planned(order, Moves::NotAsked)
}

fn planned(order: &Order<'_>, moves: Moves) -> Result<Plan, Unplanned> {
    let mut findings = order.checked()?;
    findings.extend(leaded_into_lead_free(order.charge));
    let melting = order.charge.targets(order.board)?;
    let outcome = Outcome::of(order, order.case(&melting))?;
    Ok(outcome.into_plan(findings, moves)?)
}
