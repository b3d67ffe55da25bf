//! A computed plan, `urgent-mend/plan/2`: the core's own plan in an envelope.

use mend_core::planning::plan::{ENGINE, Plan};
use serde::{Deserialize, Serialize};

use crate::reading::Accepted;

/// The format's name.
pub const FORMAT: &str = "urgent-mend/plan/2";
/// Before it was the same figures under other names.
pub(crate) const ACCEPTED: Accepted = Accepted { written: FORMAT, older: &["urgent-mend/plan/1"] };

#[derive(Serialize)]
struct PlanFileOut<'a> {
    format: &'static str,
    #[serde(flatten)]
    plan: &'a Plan,
}

#[derive(Deserialize)]
struct PlanFileIn {
    format: String,
    #[serde(flatten)]
    plan: Plan,
}

/// As JSON.
pub fn write(plan: &Plan) -> Result<String, serde_json::Error> {
    serde_json::to_string(&PlanFileOut { format: FORMAT, plan })
}

/// Read back; none when it is of another format or engine, and must be computed anew.
pub fn read(json: &str) -> Option<Plan> {
    read_kept(json).filter(|plan| plan.engine == ENGINE)
}

/// Read back whatever engine made it: the plan that a bench run was begun with stays its plan.
pub fn read_kept(json: &str) -> Option<Plan> {
    let read: PlanFileIn = serde_json::from_str(json).ok()?;
    ACCEPTED.includes(&read.format).then_some(read.plan)
}
