//! Which lane is recommended, and why: an open window with everything beyond its wanted margin first; of these the one that is
//! soonest done. Where none is so comfortable: the one that works most often, with most headroom.

use std::cmp::Ordering;

use super::lane::Lane;
use crate::method::subject::Subject;
use crate::planning::plan::WindowState;

/// Below this nobody is sent to the bench.
const LEAST_CHANCE: f64 = 0.3;

/// The lane's place, and the reason in two sentences.
pub(super) fn recommend(lanes: &[Lane], subject: &Subject<'_>) -> (Option<usize>, String) {
    let able = |lane: &&Lane| lane.plan.chance >= LEAST_CHANCE && lane.level() <= subject.equipment.level;
    let mut ranked: Vec<&Lane> = lanes.iter().filter(able).collect();
    ranked.sort_by(|a, b| order(b, a));
    let Some(best) = ranked.first() else {
        let nearest = lanes.iter().max_by(|a, b| a.plan.chance.total_cmp(&b.plan.chance));
        let why = nearest
            .map_or(String::new(), |lane| format!(" Nearest is {}: {}", lower(lane.name()), lane.searched.limited_by));
        return (None, format!("Nothing here opens the window.{why}"));
    };
    let place = lanes.iter().position(|lane| std::ptr::eq(lane, *best));
    (place, format!("{} {}", first(best), second(best, &ranked[1..])))
}

fn order(a: &Lane, b: &Lane) -> Ordering {
    let rank = |lane: &Lane| match lane.plan.window {
        WindowState::Open => 2,
        WindowState::Tight => 1,
        WindowState::Closed => 0,
    };
    let headroom = |lane: &Lane| lane.tightest.as_ref().map_or(f64::INFINITY, |tightest| tightest.headroom_k);
    let comfortable = a.is_comfortable().cmp(&b.is_comfortable());
    // Nobody can tell minutes apart that hands spread by more than that; of two alike the one with more headroom.
    let minutes = |lane: &Lane| (lane.total_s.mid / 60.0).round();
    let sooner = minutes(b).total_cmp(&minutes(a)).then(headroom(a).total_cmp(&headroom(b)));
    match (a.is_comfortable(), b.is_comfortable()) {
        (true, true) => sooner,
        _ => comfortable
            .then(rank(a).cmp(&rank(b)))
            .then((a.plan.chance - b.plan.chance).total_cmp(&0.0))
            .then(headroom(a).total_cmp(&headroom(b))),
    }
}

/// What it does.
fn first(lane: &Lane) -> String {
    let tenths = (lane.plan.chance * 10.0).round();
    let headroom = match &lane.tightest {
        Some(tight) if tight.headroom_k >= 0.0 => format!(", {:.0} K left at {}", tight.headroom_k, tight.name),
        Some(tight) => format!(", though {} may pass its limit", tight.name),
        None => String::new(),
    };
    let minutes = (lane.total_s.mid / 60.0).round();
    let pro = lane.fit.speaks_for.first().map_or(String::new(), |reason| format!("; {reason}"));
    format!("{} works in {tenths:.0} of 10{headroom}, in about {minutes:.0} min{pro}.", lane.name())
}

/// Why not the next one.
fn second(best: &Lane, others: &[&Lane]) -> String {
    let Some(next) = others.first() else { return "No other way works here often enough.".to_owned() };
    let later = (next.total_s.mid - best.total_s.mid) / 60.0;
    let name = next.name();
    let why = match &next.tightest {
        _ if next.plan.chance + 0.05 < best.plan.chance => {
            format!("works in {:.0} of 10 only", (next.plan.chance * 10.0).round())
        }
        Some(tight) if !tight.inside && best.is_comfortable() => {
            format!("brings {} within {:.0} K of its limit", tight.name, tight.headroom_k.max(0.0))
        }
        _ if next.passes.is_none() => "leaves alloy that eight passes do not get out".to_owned(),
        _ if later >= 1.0 => {
            let passes = next.passes.filter(|p| *p > 1).map_or(String::new(), |p| format!(", with {p} wick passes"));
            format!("takes {later:.0} min longer{passes}")
        }
        _ => room_less(best, next).unwrap_or_else(|| "does about as well".to_owned()),
    };
    format!("{name}, the next best, {why}.")
}

fn room_less(best: &Lane, next: &Lane) -> Option<String> {
    let (best, next) = (best.tightest.as_ref()?, next.tightest.as_ref()?);
    let less = best.headroom_k - next.headroom_k;
    (less >= 5.0).then(|| format!("leaves {less:.0} K less headroom, at {}", next.name))
}

fn lower(text: &str) -> String {
    let mut letters = text.chars();
    letters.next().map_or(String::new(), |first| first.to_lowercase().chain(letters).collect())
}
