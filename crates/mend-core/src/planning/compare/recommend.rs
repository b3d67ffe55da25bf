//! The lane that is recommended, and why: the preferred one of those that this hand may choose, and why the next is not.

use serde::Serialize;

use super::lane::{Lane, Tightest};
use super::preference::{as_sure, preferred};
use crate::method::MethodFamily;
use crate::method::reason::Advantage;
use crate::method::subject::Subject;
use crate::planning::damaged::Damaged;
use crate::planning::plan::WorksIn;
use crate::planning::search::SearchLimit;

/// Below this nobody is sent to the bench.
const LEAST_CHANCE: f64 = 0.3;

/// Why a lane is recommended, or why none is.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[serde(untagged)]
pub enum Recommendation {
    /// This one.
    Best {
        /// What it does.
        best: BestLane,
        /// Why not the next one; none where no other works often enough.
        next: Option<NextBest>,
    },
    /// Nothing opens the window.
    None {
        /// What came nearest, and what stands in its way.
        nearest: Option<(MethodFamily, SearchLimit)>,
    },
}

/// What the recommended lane does.
#[derive(Debug, Clone, PartialEq, Serialize)]
pub struct BestLane {
    /// Which.
    pub family: MethodFamily,
    /// How often it works.
    pub works_in: WorksIn,
    /// What is tightest.
    pub tightest: Option<Tightest>,
    /// Time at the bench, min.
    pub minutes: f64,
    /// What speaks for it first.
    pub speaks_for: Option<Advantage>,
}

/// Why the next one is not.
#[derive(Debug, Clone, PartialEq, Serialize)]
pub struct NextBest {
    /// Which.
    pub family: MethodFamily,
    /// Why.
    pub why: WhyNot,
}

/// Why a lane is not the recommended one.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[serde(tag = "kind", rename_all = "kebab-case")]
pub enum WhyNot {
    /// It works less often.
    WorksLess { works_in: WorksIn },
    /// It brings something nearer to its limit than wanted.
    NearLimit { of: Damaged, headroom_k: f64 },
    /// It leaves alloy that eight passes do not get out.
    LeavesAlloy,
    /// It takes longer; with so many wick passes, where there is more than one.
    TakesLonger { minutes: f64, passes: Option<usize> },
    /// It leaves less headroom.
    LessHeadroom { of: Damaged, less_k: f64 },
    /// It does about as well.
    AboutAsWell,
}

/// The lane's place, and the reason.
pub(super) fn recommend(lanes: &[Lane], subject: &Subject<'_>) -> (Option<usize>, Recommendation) {
    let able = |lane: &&Lane| lane.plan.chance >= LEAST_CHANCE && lane.level() <= subject.equipment.level;
    let able: Vec<&Lane> = lanes.iter().filter(able).collect();
    let Some(best) = preferred(&able) else {
        let nearest = lanes.iter().max_by(|a, b| a.plan.chance.total_cmp(&b.plan.chance));
        let nearest = nearest.and_then(|lane| Some((lane.choice.family, lane.searched.limited_by()?)));
        return (None, Recommendation::None { nearest });
    };
    let others: Vec<&Lane> = able.into_iter().filter(|lane| !std::ptr::eq(*lane, best)).collect();
    let next = preferred(&others).map(|next| why_not(best, next));
    let place = lanes.iter().position(|lane| std::ptr::eq(lane, best));
    (place, Recommendation::Best { best: described(best), next })
}

fn described(lane: &Lane) -> BestLane {
    BestLane {
        family: lane.choice.family,
        works_in: lane.plan.works_in(),
        tightest: lane.tightest.clone(),
        minutes: lane.minutes(),
        speaks_for: lane.fit.speaks_for.first().cloned(),
    }
}

fn why_not(best: &Lane, next: &Lane) -> NextBest {
    let minutes = (next.total_s.mid - best.total_s.mid) / 60.0;
    let why = match &next.tightest {
        _ if !as_sure(next, best) => WhyNot::WorksLess { works_in: next.plan.works_in() },
        Some(tight) if !tight.inside && best.is_comfortable() => {
            WhyNot::NearLimit { of: tight.of.clone(), headroom_k: tight.headroom_k.max(0.0) }
        }
        _ if next.passes.is_none() => WhyNot::LeavesAlloy,
        _ if minutes >= 1.0 => WhyNot::TakesLonger { minutes, passes: next.passes.filter(|p| *p > 1) },
        _ => less_headroom(best, next).unwrap_or(WhyNot::AboutAsWell),
    };
    NextBest { family: next.choice.family, why }
}

fn less_headroom(best: &Lane, next: &Lane) -> Option<WhyNot> {
    let (best, next) = (best.tightest.as_ref()?, next.tightest.as_ref()?);
    let less_k = best.headroom_k - next.headroom_k;
    (less_k >= 5.0).then(|| WhyNot::LessHeadroom { of: next.of.clone(), less_k })
}
