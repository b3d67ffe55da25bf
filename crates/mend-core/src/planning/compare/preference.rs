//! Which of two methods is preferred, over the ensemble of what is guessed: the sure one before the comfortable one, the
//! comfortable one before the quick one. No minutes make up for a board that is lost.

use super::lane::Lane;
use crate::planning::plan::WindowState;

/// A method, or a way to fit, is as sure as the surest while it fails in no more than this share of the runs beyond it. Of 64
/// runs that is three: fewer than three more failures say little about which of two fails oftener (two standard errors of a
/// share of 1 in 20 are 5 %).
pub(in crate::planning) const AS_SURE: f64 = 0.05;

/// The preferred of some lanes; none of none.
///
/// Of those that are as sure as the surest: where some keep everything beyond its wanted margin and leave nothing in the joints
/// that must not stay, the soonest done of these; where none does, the one that is nearest to it.
pub(super) fn preferred<'a>(lanes: &[&'a Lane]) -> Option<&'a Lane> {
    let surest = lanes.iter().map(|lane| lane.plan.chance).max_by(f64::total_cmp)?;
    let sure = || lanes.iter().copied().filter(|lane| lane.plan.chance >= surest - AS_SURE);
    // Nobody can tell minutes apart that hands spread by more than that; of two alike the one with more headroom.
    let soonest = sure()
        .filter(|lane| lane.is_comfortable())
        .min_by(|a, b| a.minutes().total_cmp(&b.minutes()).then(headroom(b).total_cmp(&headroom(a))));
    soonest.or_else(|| {
        sure().max_by(|a, b| {
            (rank(a).cmp(&rank(b)))
                .then(a.passes.is_some().cmp(&b.passes.is_some()))
                .then(headroom(a).total_cmp(&headroom(b)))
        })
    })
}

/// Is it as sure as another?
pub(super) fn as_sure(lane: &Lane, other: &Lane) -> bool {
    lane.plan.chance >= other.plan.chance - AS_SURE
}

fn rank(lane: &Lane) -> u8 {
    match lane.plan.window {
        WindowState::Open => 2,
        WindowState::Tight => 1,
        WindowState::Closed => 0,
    }
}

fn headroom(lane: &Lane) -> f64 {
    lane.tightest.as_ref().map_or(f64::INFINITY, |tightest| tightest.headroom_k)
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::example::{AMBIENT, Bench};
    use crate::method::MethodFamily;
    use crate::planning::search::request::{Effort, SearchRequest};

    /// A lane that works in all runs with headroom, on the example's board.
    fn works() -> Lane {
        let bench = Bench::try_new().expect("the example");
        let subject = bench.subject();
        let sought = SearchRequest { subject: &subject, ambient: AMBIENT, effort: Effort::Look, watch: &bench.watch };
        let family = MethodFamily::FromAbove;
        let lane = Lane::try_new(&sought, family, family.method().fit(&subject));
        let mut lane = lane.expect("it can be computed").expect("it begins somewhere");
        lane.plan.chance = 1.0;
        lane.plan.window = WindowState::Open;
        lane.passes = Some(1);
        if let Some(tightest) = &mut lane.tightest {
            tightest.inside = true;
        }
        lane
    }

    fn is(lane: &Lane, other: &Lane) -> bool {
        std::ptr::eq(lane, other)
    }

    #[test]
    fn minutes_do_not_make_up_for_one_in_ten_and_decide_among_methods_as_sure() {
        let sure = works();
        let mut quick = sure.clone();
        quick.total_s.mid = sure.total_s.mid - 300.0;
        quick.plan.chance = 0.9;
        assert!(is(preferred(&[&quick, &sure]).expect("one"), &sure), "it fails in one of ten");
        quick.plan.chance = 0.97;
        assert!(is(preferred(&[&quick, &sure]).expect("one"), &quick), "it is as sure, and sooner");
    }

    #[test]
    fn what_stays_in_the_joints_and_the_headroom_count_before_minutes() {
        let clean = works();
        let mut quick = clean.clone();
        quick.total_s.mid = clean.total_s.mid - 300.0;
        quick.passes = None;
        assert!(is(preferred(&[&quick, &clean]).expect("one"), &clean), "alloy stays in its joints");
        quick.passes = Some(1);
        quick.tightest.as_mut().expect("something is near").inside = false;
        assert!(is(preferred(&[&quick, &clean]).expect("one"), &clean), "it goes near a limit");
    }
}
