//! What limits a plan: the last joint to melt, the first damage, and how they stand to each other.

use serde::{Deserialize, Serialize};

use super::damaged::Damaged;
use super::limits::first_damage_of;
use super::margin::{Margin, MarginKind};
use super::runs::PlanRuns;

/// What limits a plan.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[serde(untagged)]
pub enum LimitedBy {
    /// As found in the nominal run.
    Found {
        /// The last joint; none where the part has none.
        last: Option<LastJoint>,
        /// What comes nearest to its limit.
        nearest: NearestLimit,
    },
    /// As an older plan wrote it.
    Written(String),
}

/// The joint that melts last.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
pub struct LastJoint {
    /// Its name.
    pub joint: String,
    /// When.
    pub melts: LastMelt,
}

/// When the last joint melts.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[serde(tag = "when", rename_all = "kebab-case")]
pub enum LastMelt {
    /// Before the last stage begins.
    BeforeLastStage,
    /// So long after it began, s.
    After {
        /// s.
        s: f64,
    },
    /// Not within the longest heating.
    NotWithin {
        /// s.
        s: f64,
        /// How far from letting go it stays, and what would close that; none of older plans.
        #[serde(default)]
        short: Option<Short>,
    },
}

/// How far the last joint stays from letting go.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
pub struct Short {
    /// K.
    pub by_k: f64,
    /// How much hotter the air would have to be set, K; none: no air blows, or the station is not made for it.
    pub air_k: Option<f64>,
}

/// What comes nearest to its limit, or passes it first.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[serde(tag = "how", rename_all = "kebab-case")]
pub enum NearestLimit {
    /// It passes its limit so long before the last joint melts.
    Earlier {
        /// What.
        of: Damaged,
        /// s.
        s: f64,
    },
    /// It passes its limit at that second of the last stage.
    At {
        /// What.
        of: Damaged,
        /// s.
        s: f64,
    },
    /// Nothing passes its limit; this comes nearest.
    Inside {
        /// What.
        of: Damaged,
        /// Headroom that is left, K.
        headroom_k: f64,
    },
    /// It may pass its limit in one sample of ten.
    Perhaps {
        /// What.
        of: Damaged,
    },
    /// Nothing has a limit.
    Nothing,
}

/// What limits a plan; seconds of the last stage.
pub(super) fn limited_by(outcome: &PlanRuns<'_>, margins: &[Margin]) -> LimitedBy {
    let (fine, from) = (&outcome.fine, outcome.fine.last_from);
    let joints = fine.melted.iter().zip(&outcome.case.board.connector.joints);
    let last = joints.max_by(|a, b| a.0.unwrap_or(f64::INFINITY).total_cmp(&b.0.unwrap_or(f64::INFINITY)));
    let molten = last.and_then(|(t, _)| *t);
    let melts = match molten {
        Some(t) if t < from => LastMelt::BeforeLastStage,
        Some(t) => LastMelt::After { s: t - from },
        None => LastMelt::NotWithin {
            s: outcome.case.recipe.longest.in_seconds(),
            short: last.and_then(|(_, joint)| short(outcome, &joint.name)),
        },
    };
    let last = last.map(|(_, joint)| LastJoint { joint: joint.name.clone(), melts });
    let tight = margins.iter().find(|m| m.kind != MarginKind::Joints && !m.expendable);
    let nearest = match (first_damage_of(&outcome.limits, fine), tight) {
        (Some(damage), _) => match molten {
            Some(molten) if damage.at_s < molten => NearestLimit::Earlier { of: damage.to, s: molten - damage.at_s },
            _ => NearestLimit::At { of: damage.to, s: (damage.at_s - from).max(0.0) },
        },
        (None, Some(tight)) if tight.headroom_k >= 0.0 => {
            NearestLimit::Inside { of: tight.damaged(), headroom_k: tight.headroom_k }
        }
        (None, Some(tight)) => NearestLimit::Perhaps { of: tight.damaged() },
        (None, None) => NearestLimit::Nothing,
    };
    LimitedBy::Found { last, nearest }
}

/// How far a joint stays from letting go in the nominal run. Its rise over ambient grows in proportion to that of the air, near
/// enough: so much hotter is the air to be set, in steps that a person sets.
fn short(outcome: &PlanRuns<'_>, name: &str) -> Option<Short> {
    /// Nobody sets finer, K.
    const STEP_K: f64 = 5.0;
    let (fine, case) = (&outcome.fine, &outcome.case);
    let k = case.board.connector.joints.iter().position(|joint| joint.name == name)?;
    let reached = fine.traces.joints[k].iter().copied().max_by(f32::total_cmp).map(f64::from)?;
    let by_k = (fine.melts_at[k] - reached).max(0.0);
    let ambient = case.ambient.in_celsius();
    let air_k = case.recipe.air.and_then(|air| {
        let more = by_k * (air.set.in_celsius() - ambient) / (reached - ambient).max(1.0);
        let more = (more / STEP_K).ceil() * STEP_K;
        (air.set.in_celsius() + more <= case.station.set_range.1.in_celsius()).then_some(more)
    });
    Some(Short { by_k, air_k })
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::example::Bench;
    use crate::planning::make_plan::plan_alone;
    use crate::units::Temperature;

    fn found(set_c: f64) -> (LastJoint, NearestLimit) {
        let mut bench = Bench::try_new().expect("the example");
        bench.recipe.air =
            bench.recipe.air.map(|air| crate::heat::tool::HotAir { set: Temperature::celsius(set_c), ..air });
        match plan_alone(&bench.order()).expect("it can be computed").limited_by {
            LimitedBy::Found { last: Some(last), nearest } => (last, nearest),
            other => panic!("{other:?}"),
        }
    }

    #[test]
    fn mild_air_never_melts_the_last_joint_and_hotter_air_does_sooner() {
        let LastMelt::NotWithin { s: 240.0, short: Some(short) } = found(300.0).0.melts else { panic!("it is mild") };
        assert!(short.by_k > 5.0 && short.by_k < 150.0, "{short:?}");
        // What it says would close it does.
        let more = short.air_k.expect("the station gives more");
        assert!(matches!(found(300.0 + 1.15 * more).0.melts, LastMelt::After { .. }), "{more} K more");
        let after = |set_c| match found(set_c).0.melts {
            LastMelt::After { s } => s,
            other => panic!("{other:?} at {set_c} °C"),
        };
        assert!(after(470.0) < after(420.0));
    }

    #[test]
    fn something_is_always_nearest_to_its_limit() {
        let named = |nearest: NearestLimit| match nearest {
            NearestLimit::Earlier { of, .. } | NearestLimit::At { of, .. } => Some(of),
            NearestLimit::Inside { of, .. } | NearestLimit::Perhaps { of } => Some(of),
            NearestLimit::Nothing => None,
        };
        assert!(named(found(420.0).1).is_some() && named(found(240.0).1).is_some());
    }
}
