//! What the laminate bears, and what pulling early would cost it.

use serde::{Deserialize, Serialize};

use super::band::Band;
use super::limits::LimitSubject;
use super::runs::PlanRuns;
use crate::heat::run::Run;

/// Glass transition of a usual laminate, °C (D, 130-180): above it the resin holds a pad by a tenth of its strength.
pub const LAMINATE_TG_C: f64 = 150.0;
/// Time above this is counted, °C (D, advice: under 60 s).
pub const LAMINATE_WATCHED_C: f64 = 260.0;
/// So far above the transition a pad comes off at a touch, K (E).
const SOFT_K: f64 = 60.0;
/// Joints that lag by so much tempt to pull, s (E).
const LONG_LAG_S: f64 = 5.0;

/// What the laminate bears until all goes off.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
pub struct LaminateHeat {
    /// Hottest place of either face, °C.
    pub peak_c: Band,
    /// Time above 260 °C, s.
    pub over_260_s: Band,
    /// Time of the pads above the glass transition, s.
    pub over_tg_s: Band,
    /// Steepest rise of the pads, K/s.
    pub ramp_k_per_s: Band,
}

/// How easily a pad lifts.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Serialize, Deserialize)]
#[serde(rename_all = "kebab-case")]
pub enum Risk {
    /// All joints let go together, the board is not much above its transition.
    Low,
    /// One of the two.
    Raised,
    /// A joint lags while the board is soft.
    High,
}

/// What pulling before the last joint melts would cost.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
pub struct PadLift {
    /// The joint that melts last.
    pub last: String,
    /// How long after the first one, s.
    pub lag_s: Band,
    /// The pads over the glass transition when the last joint melts, K.
    pub over_tg_k: Band,
    /// How easily a pad lifts then.
    pub risk: Risk,
}

/// None where there are no samples.
pub(super) fn laminate(outcome: &PlanRuns<'_>) -> Option<LaminateHeat> {
    let seconds_over = |curve: &[f32], celsius: f64, off: usize| {
        curve.iter().take(off + 1).filter(|t| f64::from(**t) >= celsius).count() as f64
    };
    let steepest = |run: &Run| {
        let pads = &run.traces.pads[..run.traces.pads.len().min(outcome.off(run) + 1)];
        pads.windows(2).map(|w| f64::from(w[1] - w[0])).fold(0.0, f64::max)
    };
    Some(LaminateHeat {
        peak_c: outcome.band(|run| Some(outcome.highest(run, LimitSubject::Laminate)))?,
        over_260_s: outcome
            .time_band(|run| Some(seconds_over(&run.traces.laminate, LAMINATE_WATCHED_C, outcome.off(run))))?,
        over_tg_s: outcome.time_band(|run| Some(seconds_over(&run.traces.pads, LAMINATE_TG_C, outcome.off(run))))?,
        ramp_k_per_s: outcome.time_band(|run| Some(steepest(run)))?,
    })
}

/// None where no sample melts everything.
pub(super) fn pad_lift(outcome: &PlanRuns<'_>) -> Option<PadLift> {
    let ends = |run: &Run| {
        let times = run.melted.iter().copied().collect::<Option<Vec<f64>>>()?;
        let (first, last) = times.iter().fold((f64::INFINITY, 0.0_f64), |(a, b), t| (a.min(*t), b.max(*t)));
        Some((first, last))
    };
    let lag_s = outcome.time_band(|run| ends(run).map(|(first, last)| last - first))?;
    let over_tg_k = outcome.band(|run| {
        let (_, last) = ends(run)?;
        let pads = run.traces.pads.get(last as usize)?;
        Some(f64::from(*pads) - LAMINATE_TG_C)
    })?;
    let joints = outcome.case.board.connector.joints.iter().zip(&outcome.fine.melted);
    let last = joints.filter_map(|(joint, t)| Some((joint, (*t)?))).max_by(|a, b| a.1.total_cmp(&b.1));
    let risk = match (lag_s.mid > LONG_LAG_S, over_tg_k.mid > SOFT_K) {
        (true, true) => Risk::High,
        (false, false) => Risk::Low,
        _ => Risk::Raised,
    };
    Some(PadLift { last: last?.0.name.clone(), lag_s, over_tg_k, risk })
}

#[cfg(test)]
mod tests {
    use crate::example::Bench;
    use crate::planning::make_plan::plan_alone;

    #[test]
    fn a_longer_soak_is_more_for_the_laminate_and_the_last_joint_is_named() {
        let mut bench = Bench::try_new().expect("the example");
        let plain = plan_alone(&bench.order()).expect("it can be computed");
        let stage = crate::method::usual::soak(&bench.board, &bench.station, &bench.recipe.air.expect("hot air"));
        bench.recipe.preheat = vec![stage];
        let soaked = plan_alone(&bench.order()).expect("it can be computed");
        let over = |plan: &crate::planning::plan::Plan| plan.laminate.expect("samples").over_tg_s.mid;
        assert!(over(&soaked) > over(&plain), "{} after {} s above the transition", over(&soaked), over(&plain));
        let lift = plain.pad_lift.expect("it melts");
        assert!(bench.board.connector.joints.iter().any(|joint| joint.name == lift.last));
        assert!(lift.lag_s.low <= lift.lag_s.high && lift.over_tg_k.mid > 0.0);
    }
}
