//! A run that is watched, a line an event and a line a state: docs/formats/live.md.

use mend_core::board::Board;
use mend_core::calibration::observation::Observation;
use mend_core::calibration::reading_fault::ReadingFault;
use mend_core::calibration::twin::{TwinAdvice, TwinState};
use mend_core::finding::Finding;
use serde::{Deserialize, Serialize};

use crate::reading;

const RULE: &str = "events";

/// An event as it is written: a moment, and what came with it, if anything.
#[derive(Debug, Clone, Deserialize)]
#[serde(deny_unknown_fields)]
struct EventFile {
    /// Seconds from the first tool.
    at_s: f64,
    /// What the thermocouple read.
    #[serde(default)]
    celsius: Option<f64>,
    /// A row of joints that shines.
    #[serde(default)]
    shines: Option<String>,
    /// The part came away.
    #[serde(default)]
    moved: bool,
}

/// An event.
#[derive(Debug, Clone, PartialEq)]
pub enum LiveEvent {
    /// Time goes on.
    Tick { at_s: f64 },
    /// A reading.
    Reading { at_s: f64, celsius: f64 },
    /// Something was seen.
    Seen { at_s: f64, observation: Observation },
}

impl LiveEvent {
    /// When.
    pub fn at_s(&self) -> f64 {
        match self {
            Self::Tick { at_s } | Self::Reading { at_s, .. } | Self::Seen { at_s, .. } => *at_s,
        }
    }
}

/// Reads a line on a board.
pub fn parse(line: &str, board: &Board) -> Result<LiveEvent, Vec<Finding>> {
    let EventFile { at_s, celsius, shines, moved } = reading::json::<EventFile>(RULE, line.as_bytes())?;
    if !(0.0..=86_400.0).contains(&at_s) {
        return Err(vec![
            Finding::written(RULE, "at_s", format!("{at_s} is no moment")).hint("seconds from the first tool"),
        ]);
    }
    if let Some(row) = shines {
        let joints = board.connector.joints.iter().enumerate().filter(|(_, joint)| joint.row == row);
        let joints: Vec<usize> = joints.map(|(k, _)| k).collect();
        if joints.is_empty() {
            let rows = mend_core::board::row_names(&board.connector.joints).join(", ");
            return Err(vec![Finding::written(RULE, "shines", format!("“{row}” is no row")).hint(rows)]);
        }
        return Ok(LiveEvent::Seen { at_s, observation: Observation::Shone { joints, at_s } });
    }
    Ok(match celsius {
        Some(celsius) => LiveEvent::Reading { at_s, celsius },
        None if moved => LiveEvent::Seen { at_s, observation: Observation::Moved { at_s } },
        None => LiveEvent::Tick { at_s },
    })
}

#[derive(Serialize)]
struct StateFile<'a> {
    at_s: f64,
    release_s: [Option<f64>; 3],
    damage_soon: f64,
    advice: &'static str,
    last_joint: Option<&'a str>,
    coldest_c: [f64; 3],
    #[serde(skip_serializing_if = "Option::is_none")]
    tightest_c: Option<[f64; 3]>,
    expected_c: &'a [[f64; 3]],
    effective: f64,
    #[serde(skip_serializing_if = "Option::is_none")]
    fault: Option<&'static str>,
}

/// What was said of a run at a moment, read back.
#[derive(Debug, Clone, Copy, PartialEq, Deserialize)]
pub struct SaidState {
    /// When the part comes away, s from the first tool: one in ten, the middle, nine in ten; none: may never.
    pub release_s: [Option<f64>; 3],
    /// Chance that something is damaged within the next 5 s, 0-1.
    pub damage_soon: f64,
}

/// Reads a line of state.
pub fn read(says: &str) -> Option<SaidState> {
    serde_json::from_str(says).ok()
}

/// Writes a state; where a reading was left out, why.
pub fn write(state: &TwinState, board: &Board, fault: Option<ReadingFault>) -> Result<String, serde_json::Error> {
    let last = state.last_joint.and_then(|(k, _)| board.connector.joints.get(k));
    let file = StateFile {
        at_s: state.at_s,
        release_s: state.release_s,
        damage_soon: state.damage_soon,
        advice: match state.advice {
            TwinAdvice::GoOn => "go-on",
            TwinAdvice::Warning => "warning",
            TwinAdvice::AirAway => "air-away",
        },
        last_joint: last.map(|joint| joint.name.as_str()),
        coldest_c: state.coldest_c,
        tightest_c: state.tightest_c,
        expected_c: &state.expected_c,
        effective: state.effective,
        fault: fault.map(|fault| match fault {
            ReadingFault::Open => "open",
            ReadingFault::Jump { .. } => "jump",
            ReadingFault::Frozen { .. } => "frozen",
        }),
    };
    serde_json::to_string(&file)
}
