//! Small runs beside a fit: how long until a hole is liquid through so that it can be emptied, and how long until solder flows
//! through an anchor. Each with a time band over two batches of samples; a nominal fine run for each would tell little more.

use serde::{Deserialize, Serialize};

use super::band::TimeBand;
use super::order::{Order, Unplanned};
use crate::board::{Board, Joint, Role};
use crate::heat::ensemble::run_all;
use crate::heat::iron::Iron;
use crate::heat::parameters::ParameterSample;
use crate::heat::purpose::Purpose;
use crate::heat::recipe::{HeatingAids, Recipe};
use crate::method::usual;
use crate::units::Duration;

/// Two batches: enough for a band of a few seconds.
const SAMPLES: usize = 16;
/// Nobody holds an iron on one joint for longer, s (E: pads lift).
const LONGEST_IRON_S: f64 = 20.0;
/// Nobody blows on a bare hole for longer, s (E).
const LONGEST_AIR_S: f64 = 180.0;

/// What is done.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[serde(rename_all = "kebab-case")]
pub enum SmallWork {
    /// Every hole liquid under the air of the plan, the braid on it from the other side.
    ClearWithAir,
    /// The slowest hole liquid through under an iron on one side.
    ClearWithIron,
    /// Solder through the slowest anchor, the iron on it, the part in its place.
    FlowAnchor,
}

/// A small run.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
pub struct SmallRun {
    /// What is done.
    pub work: SmallWork,
    /// The joint that takes longest.
    pub slowest: String,
    /// The tip, mm; 0 where air does it.
    pub tip_mm: f64,
    /// When it is liquid, s.
    pub melts: TimeBand,
}

/// The small runs of a fit, on the board and with the air that it has; an order of another kind has none.
pub(super) fn small_runs(order: &Order<'_>) -> Result<Vec<SmallRun>, Unplanned> {
    if !order.purpose.fits() {
        return Ok(Vec::new());
    }
    let made = [clear_with_air(order), clear_with_iron(order), flow_anchor(order)];
    made.into_iter().filter_map(Result::transpose).collect()
}

/// The same board with some of its joints alone.
fn only(board: &Board, keep: impl Fn(&Joint) -> bool) -> Option<Board> {
    let mut board = board.clone();
    board.connector.joints.retain(keep);
    (!board.connector.joints.is_empty()).then_some(board)
}

fn clear_with_air(order: &Order<'_>) -> Result<Option<SmallRun>, Unplanned> {
    let Some((board, air)) = only(order.board, |joint| joint.shape.is_hole()).zip(order.recipe.air) else {
        return Ok(None);
    };
    let recipe = Recipe { longest: Duration::seconds(LONGEST_AIR_S), ..Recipe::from(air) };
    let cleared = Order { board: &board, recipe: &recipe, purpose: Purpose::Clear, ..*order };
    slowest(&cleared, SmallWork::ClearWithAir).map(Some)
}

fn clear_with_iron(order: &Order<'_>) -> Result<Option<SmallRun>, Unplanned> {
    let Some(board) = only(order.board, |joint| joint.shape.is_hole() && !joint.hidden) else { return Ok(None) };
    by_iron(&Order { board: &board, purpose: Purpose::Clear, ..*order }, SmallWork::ClearWithIron)
}

fn flow_anchor(order: &Order<'_>) -> Result<Option<SmallRun>, Unplanned> {
    let Some(board) = only(order.board, |joint| joint.role == Role::Anchor && !joint.hidden) else { return Ok(None) };
    by_iron(&Order { board: &board, purpose: Purpose::Fit, ..*order }, SmallWork::FlowAnchor)
}

/// The usual iron on each joint for itself; the slowest is told.
fn by_iron(order: &Order<'_>, work: SmallWork) -> Result<Option<SmallRun>, Unplanned> {
    let mut slow: Option<SmallRun> = None;
    for joint in one_of_each(&order.board.connector.joints) {
        let iron = Iron { row: joint.name.clone(), ..usual::iron(order.board) };
        let tip_mm = iron.tip.in_mm();
        let longest = Duration::seconds(LONGEST_IRON_S);
        let during =
            HeatingAids { preheater: order.recipe.during.preheater, iron: Some(iron), ..HeatingAids::default() };
        let recipe = Recipe { longest, begins_at: order.recipe.begins_at, ..Recipe::from(during) };
        let Some(board) = only(order.board, |other| other.name == joint.name) else { continue };
        let run = slowest(&Order { board: &board, recipe: &recipe, ..*order }, work)?;
        let longer = slow.as_ref().is_none_or(|slow| key(&run.melts) > key(&slow.melts));
        slow = if longer { Some(SmallRun { tip_mm, ..run }) } else { slow };
    }
    Ok(slow)
}

/// Joints that differ in nothing but their place stand for each other.
fn one_of_each(joints: &[Joint]) -> Vec<&Joint> {
    let mut of_each: Vec<&Joint> = Vec::new();
    for joint in joints {
        if of_each.iter().all(|other| (other.shape, other.role) != (joint.shape, joint.role)) {
            of_each.push(joint);
        }
    }
    of_each
}

fn key(melts: &TimeBand) -> f64 {
    melts.mid_s.unwrap_or(f64::INFINITY)
}

/// When the last joint of an order is liquid, over the samples, and which that is in most of them.
fn slowest(order: &Order<'_>, work: SmallWork) -> Result<SmallRun, Unplanned> {
    let melting = order.composition.targets(order.board)?;
    let case = order.case(&melting);
    let samples = ParameterSample::samples(SAMPLES, &case);
    let runs = run_all(&case, &samples, &|_| true);
    order.watch.wanted()?;
    let times: Vec<TimeBand> = (0..order.board.connector.joints.len())
        .map(|k| TimeBand::from_times(&runs.iter().map(|run| run.melted[k]).collect::<Vec<_>>(), 1.0))
        .collect();
    let last = (0..times.len()).max_by(|a, b| key(&times[*a]).total_cmp(&key(&times[*b]))).unwrap_or(0);
    let all: Vec<Option<f64>> =
        runs.iter().map(|run| run.melted.iter().copied().try_fold(0.0_f64, |t, m| Some(t.max(m?)))).collect();
    let slowest = order.board.connector.joints[last].name.clone();
    Ok(SmallRun { work, slowest, tip_mm: 0.0, melts: TimeBand::from_times(&all, 1.0) })
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::example::Bench;

    #[test]
    fn a_fit_has_its_holes_and_anchors_and_a_removal_has_none() {
        let bench = Bench::try_new().expect("the example");
        assert!(small_runs(&bench.order()).expect("computed").is_empty());
        let composition = bench.composition.for_fit(&bench.board);
        let fit = Order { composition: &composition, purpose: Purpose::Fit, ..bench.order() };
        let made = small_runs(&fit).expect("computed");
        let works: Vec<SmallWork> = made.iter().map(|run| run.work).collect();
        assert_eq!(works, [SmallWork::ClearWithAir, SmallWork::ClearWithIron, SmallWork::FlowAnchor]);
        let iron = &made[1];
        assert!(iron.tip_mm > 0.0 && iron.melts.mid_s.is_some_and(|s| s > 0.2 && s < 20.0), "{iron:?}");
        let air = &made[0];
        assert!(air.melts.mid_s > iron.melts.mid_s, "a jet warms all of the board, a tip one hole: {air:?}");
    }

    #[test]
    fn a_warm_board_is_cleared_sooner() {
        let mut bench = Bench::try_new().expect("the example");
        let composition = bench.composition.for_fit(&bench.board);
        let cold = |bench: &Bench| {
            let fit = Order { composition: &composition, purpose: Purpose::Fit, ..bench.order() };
            clear_with_iron(&fit).expect("computed").expect("it has holes").melts.mid_s
        };
        let from_ambient = cold(&bench);
        bench.recipe.begins_at = Some(crate::units::Temperature::celsius(120.0));
        assert!(cold(&bench) < from_ambient);
    }
}
