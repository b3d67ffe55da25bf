//! What a job uses up: expected of its plan, and as its bench run has it.
//!
//! - this file: what can be used up, and what a single act takes of it
//! - [`expected`]: by the plan; [`at_bench`]: by what was done
//!
//! Does not know: what the shop has of it, and in which unit.

pub mod at_bench;
pub mod expected;

use serde::Serialize;

use crate::board::{Board, JointGroup};
use crate::heat::shield::{Shield, ShieldKind};
use crate::solder::{JointComposition, amount};

/// Something that is used up.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[serde(tag = "use", rename_all = "kebab-case")]
pub enum Use {
    /// Solder wire.
    Alloy { mm: f64, name: String },
    /// Braid.
    Braid { cm: f64 },
    /// A shield and its area, its layers counted once.
    Shield { shield: ShieldKind, cm2: f64 },
    /// Flux.
    Flux { ml: f64 },
    /// Alcohol to clean with.
    Alcohol { ml: f64 },
    /// A nozzle in hot air.
    Nozzle { width_mm: f64, hours: f64 },
}

/// Braid that a pass draws up at a pad and at a hole, mm of 2 mm braid (E).
const BRAID_MM: [f64; 2] = [8.0, 25.0];
/// Flux on a pad and on a plated hole, mm³: a bead 1.3 mm wide and 1 mm high as long as a pin's pitch; a barrel and a bead on
/// either face (E, x0.5-2).
const FLUX_MM3: [f64; 2] = [2.0, 6.0];
/// Braid is fluxed too: so much of the first coat with each pass (E).
const FLUX_OF_A_PASS: f64 = 0.5;
/// Alcohol that a cleaning takes, mL a cm², brushed and wiped twice (E, x0.5-2).
const ALCOHOL_ML_CM2: f64 = 0.5;
/// So far round the joints is cleaned, mm (E).
const CLEANED_MM: f64 = 5.0;

fn braid_mm(group: &JointGroup) -> f64 {
    group.joints.len() as f64 * BRAID_MM[usize::from(group.holes)]
}

fn fed_mm(composition: &JointComposition, group: &JointGroup) -> f64 {
    amount(composition, group).map_or(0.0, |amount| amount.length_mm * group.joints.len() as f64)
}

/// A coat on every joint of a row, mL.
fn flux_ml(group: &JointGroup) -> f64 {
    group.joints.len() as f64 * FLUX_MM3[usize::from(group.holes)] / 1000.0
}

/// What a cleaning of the part's place takes, mL.
fn alcohol_ml(board: &Board) -> f64 {
    let joints = &board.connector.joints;
    let reach = |of: fn(f64, f64) -> f64, from: f64| {
        joints.iter().fold((from, from), |(x, y), joint| (of(x, joint.at.x), of(y, joint.at.y)))
    };
    let (low, high) = (reach(f64::min, f64::INFINITY), reach(f64::max, f64::NEG_INFINITY));
    let side_cm = |low: f64, high: f64| (high - low + 2.0 * CLEANED_MM).max(0.0) / 10.0;
    ALCOHOL_ML_CM2 * side_cm(low.0, high.0) * side_cm(low.1, high.1)
}

/// Tape and foil are used up; a block, a jaw and a finger are there for the next job.
fn shields(laid: &[Shield]) -> impl Iterator<Item = Use> {
    let used_up = |shield: &&Shield| {
        matches!(shield.kind, ShieldKind::Polyimide { .. } | ShieldKind::AluminiumTape | ShieldKind::FoilTent { .. })
    };
    laid.iter().filter(used_up).map(|shield| {
        let cm2 = (shield.width_mm * shield.depth_mm / 100.0).max(1.0);
        Use::Shield { shield: shield.kind, cm2 }
    })
}
