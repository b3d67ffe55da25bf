//! The plan: one fine run, twenty sampled ones, and what they say together.

use rayon::prelude::*;
use serde::{Deserialize, Serialize};

use super::band::{Band, TimeBand};
use super::margin::{Kind, Margin, Mark, Standing};
use super::settings;
use super::stop_line::{Harm, LAMINATE_MINUTE_C, LAMINATE_NEVER_C, StopLine, first_harm};
use crate::board::{Board, check};
use crate::finding::{Finding, any_blocking};
use crate::heat::mesh::{Mesh, Resolution};
use crate::heat::run::{Case, Run, run_until};
use crate::heat::tool::{HotAir, Station};
use crate::heat::unknowns::Unknowns;
use crate::solder::{Charge, leaded_into_lead_free};
use crate::units::Temperature;

/// Samples behind every band.
pub const SAMPLES: usize = 20;
/// Raised whenever the same inputs would give other figures: stored plans of another engine are computed anew.
pub const ENGINE: u32 = 2;
/// How far above its melting line every joint is wanted at the stop line, K (E).
const JOINT_WANTED_K: f64 = 10.0;

/// What is to be planned.
#[derive(Debug, Clone, Copy)]
pub struct Order<'a> {
    /// The board.
    pub board: &'a Board,
    /// What its joints hold.
    pub charge: &'a Charge,
    /// The station.
    pub station: &'a Station,
    /// Its settings.
    pub air: &'a HotAir,
    /// The room.
    pub room: Temperature,
    /// Is the part wanted alive (taken from a donor)? Then its body's limit binds.
    pub part_must_live: bool,
}

impl Order<'_> {
    /// What the rules have to say of its inputs; an error where that forbids to compute.
    pub(super) fn checked(&self) -> Result<Vec<Finding>, Vec<Finding>> {
        let mut findings = check::check(self.board);
        findings.extend(settings::check(self.air, self.station));
        findings.extend(self.charge.check(self.board));
        if any_blocking(&findings) { Err(findings) } else { Ok(findings) }
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
    /// The settings it is for.
    pub air: HotAir,
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
pub fn plan(order: &Order<'_>) -> Result<Plan, Vec<Finding>> {
    let Order { board, charge, station, air, room, .. } = *order;
    let mut findings = order.checked()?;
    findings.extend(leaded_into_lead_free(charge));
    let melting = charge.targets(board)?;
    let case = Case { board, melting: &melting, station, air, room };
    Ok(Outcome::of(order, case).into_plan(findings))
}

/// All runs of an order and what is read off them.
struct Outcome<'a> {
    order: &'a Order<'a>,
    case: Case<'a>,
    /// The nominal run on the plan's own grid.
    fine: Run,
    /// The nominal run on the screening grid: the difference corrects the samples.
    coarse: Run,
    samples: Vec<Run>,
    harms: Vec<Option<Harm>>,
    stop: StopLine,
}

impl<'a> Outcome<'a> {
    fn of(order: &'a Order<'a>, case: Case<'a>) -> Self {
        let nominal = Unknowns::nominal(&case.board.stack);
        let sampled = Unknowns::samples(SAMPLES, case.station, &case.board.stack);
        let harm = |run: &Run| first_harm(case.board, order.part_must_live, run);
        // What comes after both release and the first harm is no part of any plan.
        let run = |unknowns: &Unknowns, resolution| run_until(&case, unknowns, resolution, &|run| harm(run).is_some());
        let coarse = |unknowns: &Unknowns| run(unknowns, Resolution::COARSE);
        let (fine, (coarse, samples)) = rayon::join(
            || run(&nominal, Resolution::FINE),
            || (coarse(&nominal), sampled.par_iter().map(coarse).collect::<Vec<Run>>()),
        );
        let harms: Vec<Option<Harm>> = samples.iter().map(harm).collect();
        let stop = StopLine::of(&harms, case.air.longest.in_seconds());
        Self { order, case, fine, coarse, samples, harms, stop }
    }

    /// Fine over coarse release: the screening grid runs a few per cent fast.
    fn time_factor(&self) -> f64 {
        match (self.fine.release, self.coarse.release) {
            (Some(fine), Some(coarse)) => (fine / coarse).clamp(0.8, 1.25),
            _ => 1.0,
        }
    }

    /// A figure of every run as a band, moved by what the fine grid says about the coarse one.
    fn band(&self, figure: impl Fn(&Run) -> Option<f64>) -> Option<Band> {
        let values: Vec<f64> = self.samples.iter().filter_map(&figure).collect();
        let shift = match (figure(&self.fine), figure(&self.coarse)) {
            (Some(fine), Some(coarse)) => fine - coarse,
            _ => 0.0,
        };
        Band::of(&values).map(|band| band.shifted(shift))
    }

    /// Highest of a curve while the air is on (until release, the stop line at the latest), then `after` it if released.
    fn highest(&self, run: &Run, curve: &[f32], after: Option<f32>) -> f64 {
        let released = run.release.filter(|t| *t <= self.stop.at_s);
        let off = released.unwrap_or(self.stop.at_s).ceil() as usize;
        let heated = curve.iter().take(off + 1).copied().fold(f32::MIN, f32::max);
        f64::from(released.and(after).map_or(heated, |after| after.max(heated)))
    }

    fn chance(&self) -> f64 {
        let works = self.samples.iter().zip(&self.harms).filter(|(run, harm)| {
            let harmed = harm.as_ref().map_or(f64::INFINITY, |h| h.at_s);
            run.release.is_some_and(|t| t <= harmed)
        });
        works.count() as f64 / self.samples.len() as f64
    }

    fn margins(&self) -> Vec<Margin> {
        let mut rows = self.joint_rows();
        rows.extend(self.body_row());
        rows.extend(self.neighbour_rows());
        rows.extend(self.laminate_row());
        rows.sort_by(|a, b| {
            (a.expendable, a.margin_k).partial_cmp(&(b.expendable, b.margin_k)).unwrap_or(std::cmp::Ordering::Equal)
        });
        rows
    }

    /// A row per row of the connector, a mark per joint: its temperature at the stop line against where it melts. Each
    /// sample has a melting line of its own; the margin is taken sample by sample.
    fn joint_rows(&self) -> Vec<Margin> {
        let joints = &self.case.board.connector.joints;
        let mut names: Vec<&str> = joints.iter().map(|j| j.row.as_str()).collect();
        names.dedup();
        let at = self.stop.at_s as usize;
        // A run that ended before the stop line had everything molten and something hurt: its last word counts.
        let reached = |run: &Run, k: usize| run.joints[k].get(at).or(run.joints[k].last()).map(|t| f64::from(*t));
        let row = |name: &&str| {
            let own: Vec<usize> = (0..joints.len()).filter(|k| joints[*k].row == **name).collect();
            let mark = |k: &usize| {
                let temperature_c = self.band(|run| reached(run, *k))?;
                Some(Mark { name: joints[*k].name.clone(), temperature_c })
            };
            let over = |k: &usize| self.band(|run| Some(reached(run, *k)? - run.melts_at[*k])).map(|band| band.low);
            let margin_k = own.iter().filter_map(over).fold(f64::INFINITY, f64::min);
            let marks: Vec<Mark> = own.iter().filter_map(mark).collect();
            let hidden = own.iter().any(|k| joints[*k].hidden);
            let detail = format!("{} joints{}", marks.len(), if hidden { ", hidden" } else { "" });
            let target = own.first().map(|k| self.case.melting[*k]);
            let (line, spread) = target.map_or((0.0, 0.0), |t| (t.melted.in_celsius(), t.spread.in_kelvin()));
            let row = Margin::of((Kind::Joints, (*name).to_owned(), detail), marks, (line, JOINT_WANTED_K));
            row.against_a_spread((spread, margin_k), JOINT_WANTED_K)
        };
        names.iter().map(row).collect()
    }

    fn body_row(&self) -> Option<Margin> {
        let connector = &self.case.board.connector;
        let after = |run: &Run| run.cooling.as_ref().map(|c| c.body_peak);
        let temperature_c = self.band(|run| Some(self.highest(run, &run.body, after(run))))?;
        let marks = vec![Mark { name: connector.name.clone(), temperature_c }];
        let line = (connector.material.limit().in_celsius(), connector.material.wanted_margin().in_kelvin());
        let what = (Kind::Body, "part's body".to_owned(), connector.material.name().to_owned());
        let row = Margin::of(what, marks, line);
        Some(if self.order.part_must_live { row } else { row.expendable() })
    }

    fn neighbour_rows(&self) -> Vec<Margin> {
        let row = |(k, n): (usize, &crate::board::Neighbour)| {
            let after = |run: &Run| run.cooling.as_ref().map(|c| c.neighbour_peaks[k]);
            let temperature_c = self.band(|run| Some(self.highest(run, &run.neighbours[k], after(run))))?;
            let marks = vec![Mark { name: n.name.clone(), temperature_c }];
            let line = (n.limit().in_celsius(), n.material.wanted_margin().in_kelvin());
            let detail = format!("{}, {}", n.material.name(), n.face.name());
            Some(Margin::of((Kind::Neighbour, n.name.clone(), detail), marks, line))
        };
        self.case.board.neighbours.iter().enumerate().filter_map(row).collect()
    }

    fn laminate_row(&self) -> Option<Margin> {
        let temperature_c = self.band(|run| Some(self.highest(run, &run.laminate, None)))?;
        let marks = vec![Mark { name: "hottest place".to_owned(), temperature_c }];
        let what = (Kind::Laminate, "laminate".to_owned(), "hottest place, either face".to_owned());
        Some(Margin::of(what, marks, (LAMINATE_NEVER_C, LAMINATE_NEVER_C - LAMINATE_MINUTE_C)))
    }

    fn joints(&self) -> Vec<JointMelt> {
        let names = self.case.board.connector.joints.iter().enumerate();
        names
            .map(|(k, joint)| {
                let times: Vec<Option<f64>> = self.samples.iter().map(|run| run.melted[k]).collect();
                JointMelt { joint: joint.name.clone(), melts: TimeBand::of(&times, self.time_factor()) }
            })
            .collect()
    }

    fn map(&self) -> HeatMap {
        let mesh = Mesh::of(self.case.board, Resolution::FINE, 1.0);
        let borders = |axis: &crate::heat::axis::Axis| {
            (0..axis.len())
                .map(|i| axis.low(i))
                .chain([axis.low(axis.len() - 1) + axis.width(axis.len() - 1)])
                .collect()
        };
        let [top_c, bottom_c] = [0, 1].map(|face| {
            let cells = self.fine.faces[face].iter().zip(&mesh.inside);
            cells.map(|(t, inside)| inside.then(|| (t * 10.0).round() / 10.0)).collect()
        });
        HeatMap { x_mm: borders(&mesh.x), y_mm: borders(&mesh.y), top_c, bottom_c }
    }

    /// One sentence: the last joint, the first harm, and how they stand to each other.
    fn binds(&self, margins: &[Margin]) -> String {
        let joints = &self.case.board.connector.joints;
        let melts = self.fine.melted.iter().zip(joints);
        let last = melts.max_by(|a, b| a.0.unwrap_or(f64::INFINITY).total_cmp(&b.0.unwrap_or(f64::INFINITY)));
        let last = match last {
            Some((Some(t), joint)) => format!("Joint {} melts last, after about {t:.0} s", joint.name),
            Some((None, joint)) => {
                format!("Joint {} does not melt within {:.0} s", joint.name, self.case.air.longest.in_seconds())
            }
            None => String::new(),
        };
        let harm = first_harm(self.case.board, self.order.part_must_live, &self.fine);
        let tight = margins.iter().find(|m| m.kind != Kind::Joints && !m.expendable);
        match (harm, tight) {
            (Some(harm), _) => format!("{last}; {} passes its limit at about {:.0} s.", harm.to, harm.at_s),
            (None, Some(tight)) if tight.margin_k >= 0.0 => {
                format!(
                    "{last}; nothing passes its limit, {} comes nearest with {:.0} K left.",
                    tight.name, tight.margin_k
                )
            }
            (None, Some(tight)) => format!("{last}; {} may pass its limit in one case of ten.", tight.name),
            (None, None) => format!("{last}."),
        }
    }

    fn into_plan(self, mut findings: Vec<Finding>) -> Plan {
        let Order { board, charge, air, .. } = *self.order;
        let releases: Vec<Option<f64>> = self.samples.iter().map(|run| run.release).collect();
        let (margins, chance) = (self.margins(), self.chance());
        let past = margins.iter().any(|m| !m.expendable && m.standing == Standing::Past);
        let window = match chance {
            c if c >= 0.9 && !past => Window::Open,
            c if c >= 0.5 => Window::Tight,
            _ => Window::Closed,
        };
        if board.stack.is_dense() {
            let message = format!(
                "{} copper layers: such boards melt later than computed, the band leans that way",
                board.stack.layers
            );
            findings.push(
                Finding::warning("dense_board", "copper.layers", message).hint("expect the late end of the band"),
            );
        }
        Plan {
            engine: ENGINE,
            air: *air,
            alloy: charge.factory.name.clone(),
            fed: charge.fed().map(|feed| feed.metal.name.clone()),
            melts_at_c: self.case.melting.iter().map(|t| t.melted.in_celsius()).fold(f64::MIN, f64::max),
            samples: SAMPLES,
            window,
            chance,
            binds: self.binds(&margins),
            release: TimeBand::of(&releases, self.time_factor()),
            hold_s: self.band(|run| run.cooling.as_ref()?.hold),
            warm_s: self.band(|run| run.cooling.as_ref().map(|c| c.warm)),
            joints: self.joints(),
            map: self.map(),
            stop: self.stop,
            margins,
            findings,
        }
    }
}
