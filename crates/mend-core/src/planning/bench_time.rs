//! How long a way keeps the hands busy: heat from the plan, everything else from what hands usually take. All of the latter
//! are engineering estimates of a trained hand (E, x0.75-1.4), to be replaced by the shop's own history.

use serde::{Deserialize, Serialize};

use super::band::Band;
use super::plan::Plan;
use crate::board::{Board, Joint, KeepIntact, groups};
use crate::heat::recipe::Recipe;
use crate::method::equipment::{Equipment, Sucker};
use crate::method::techniques::{BRAID, HOLES, Question, SET, THIN};
use crate::method::{MethodChoice, MethodFamily};
use crate::solder::{JointComposition, amount, cycles};

/// A trained hand's spread: eight in ten take from three quarters to half as long again (E).
const HANDS: [f64; 3] = [0.75, 1.0, 1.4];

/// What the time goes into, in the order of the work.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Serialize, Deserialize)]
#[serde(rename_all = "kebab-case")]
pub enum TimePiece {
    /// Tools, shields.
    Ready,
    /// Flux and alloy.
    Feed,
    /// Heat until it is off.
    Heat,
    /// Wicking pads, flood and wick again.
    Wick,
    /// Holes.
    Holes,
    /// Dry fit, tinning, setting, holding.
    Fit,
    /// Pin by pin, anchors.
    TouchUp,
    /// Cleaning and looking.
    Clean,
}

impl TimePiece {
    /// All of them, in order.
    pub const ALL: [Self; 8] =
        [Self::Ready, Self::Feed, Self::Heat, Self::Wick, Self::Holes, Self::Fit, Self::TouchUp, Self::Clean];

    /// Its name.
    pub const fn name(self) -> &'static str {
        match self {
            Self::Ready => "ready",
            Self::Feed => "feed",
            Self::Heat => "heat",
            Self::Wick => "wick",
            Self::Holes => "holes",
            Self::Fit => "fit",
            Self::TouchUp => "touch up",
            Self::Clean => "clean",
        }
    }
}

/// A piece with its time.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
pub struct TimeSpent {
    /// On what.
    pub piece: TimePiece,
    /// How long, s.
    pub seconds: Band,
}

/// What is timed.
#[derive(Debug, Clone, Copy)]
pub struct TimedJob<'a> {
    /// The board.
    pub board: &'a Board,
    /// What its joints hold and are fed.
    pub composition: &'a JointComposition,
    /// The plan.
    pub plan: &'a Plan,
    /// What is done, and by which techniques.
    pub choice: &'a MethodChoice,
    /// What the shop has and can.
    pub equipment: &'a Equipment,
    /// What is kept intact.
    pub keep_intact: KeepIntact,
}

/// Flood-and-wick passes that get the feed out again; none: eight do not.
pub(crate) fn passes(board: &Board, composition: &JointComposition) -> Option<usize> {
    groups(board).iter().map(|group| cycles(composition, group)).collect::<Option<Vec<usize>>>()?.into_iter().max()
}

/// Every piece that takes any time, in order.
///
/// ```
/// use mend_core::example::Bench;
/// let bench = Bench::try_new().expect("the example");
/// use mend_core::board::KeepIntact;
/// use mend_core::method::{MethodChoice, MethodFamily, techniques::Techniques};
/// use mend_core::planning::bench_time::{TimePiece, TimedJob, bench_time};
/// use mend_core::planning::make_plan::plan;
/// let made = plan(&bench.order()).expect("it can be computed");
/// let choice = MethodChoice { family: MethodFamily::FromBelow, techniques: Techniques::default() };
/// let spent = bench_time(&TimedJob {
///     board: &bench.board,
///     composition: &bench.composition,
///     plan: &made,
///     choice: &choice,
///     equipment: &bench.equipment,
///     keep_intact: KeepIntact::Board,
/// });
/// assert_eq!(spent.first().map(|spent| spent.piece), Some(TimePiece::Ready));
/// assert!(spent.iter().all(|spent| spent.seconds.low <= spent.seconds.high));
/// ```
pub fn bench_time(timed: &TimedJob<'_>) -> Vec<TimeSpent> {
    let hands = |piece, seconds: f64| TimeSpent { piece, seconds: by_hand(seconds * timed.equipment.level.pace()) };
    let harvest = !timed.keep_intact.board();
    let spent = [
        hands(TimePiece::Ready, timed.ready()),
        hands(TimePiece::Feed, timed.feed()),
        timed.heat(),
        hands(TimePiece::Wick, if harvest { timed.wick_the_part() } else { timed.wick() }),
        hands(TimePiece::Holes, if harvest { 0.0 } else { timed.holes() }),
        if harvest { hands(TimePiece::Fit, 0.0) } else { timed.fit() },
        hands(TimePiece::TouchUp, if harvest { 0.0 } else { timed.touch_up() }),
        hands(TimePiece::Clean, timed.clean()),
    ];
    spent.into_iter().filter(|spent| spent.seconds.mid > 0.0).collect()
}

/// All of it together: pieces vary together as often as not, so their ends are added.
pub(crate) fn total(spent: &[TimeSpent]) -> Band {
    let sum = |of: fn(&Band) -> f64| spent.iter().map(|spent| of(&spent.seconds)).sum();
    Band { low: sum(|b| b.low), mid: sum(|b| b.mid), high: sum(|b| b.high) }
}

fn by_hand(seconds: f64) -> Band {
    let [low, mid, high] = HANDS.map(|share| share * seconds);
    Band { low, mid, high }
}

impl TimedJob<'_> {
    fn joints(&self) -> &[Joint] {
        &self.board.connector.joints
    }

    fn each(&self, pad: f64, hole: f64) -> f64 {
        self.joints().iter().map(|joint| if joint.shape.is_hole() { hole } else { pad }).sum()
    }

    fn technique(&self, question: &Question) -> &'static str {
        self.choice.techniques.followed(question)
    }

    fn ready(&self) -> f64 {
        let Recipe { shields, preheat, during, bridge, .. } = &self.plan.recipe;
        let preheater = preheat.iter().any(|stage| stage.during.preheater.is_some()) || during.preheater.is_some();
        let wire = bridge.as_ref().is_some_and(|bridge| bridge.wire_mm > 0.0);
        // A wire is bent and soldered to joint after joint.
        let wire = if wire { 60.0 + 3.0 * self.joints().len() as f64 } else { 0.0 };
        60.0 + 45.0 * shields.len() as f64 + if preheater { 30.0 } else { 0.0 } + wire
    }

    fn feed(&self) -> f64 {
        let flux = 20.0;
        let Some(_) = self.composition.fed() else {
            return flux + if self.technique(&THIN) == "wick" { self.each(2.0, 5.0) } else { 0.0 };
        };
        let one = |group: &crate::board::JointGroup| {
            let rounds = amount(self.composition, group).map_or(0, |amount| amount.rounds) as f64;
            rounds * group.joints.len() as f64 * if group.holes { 9.0 } else { 4.0 }
        };
        flux + groups(self.board).iter().map(one).sum::<f64>()
    }

    /// From the first tool to the part in the tweezers.
    fn heat(&self) -> TimeSpent {
        let Plan { recipe, release, abort, .. } = self.plan;
        let before = recipe.seconds_before() as f64;
        let mid = release.mid_s.unwrap_or(abort.at_s);
        // An abort time that comes before the usual release ends the heat later all the same: it is begun again.
        let late = release.high_s.unwrap_or(abort.at_s).max(mid);
        let low = release.low_s.unwrap_or(mid).min(mid);
        let lift = 5.0;
        TimeSpent {
            piece: TimePiece::Heat,
            seconds: Band { low: low + before, mid: mid + before, high: late + before + lift },
        }
    }

    fn wick(&self) -> f64 {
        let passes = match (self.choice.family, self.composition.fed()) {
            (MethodFamily::HotSwap, _) => return 0.0,
            (_, Some(_)) => passes(self.board, self.composition).unwrap_or(8).max(1),
            (_, None) if self.technique(&BRAID) == "holes-only" => return 0.0,
            (_, None) => 1,
        };
        let flood = 20.0 * passes.saturating_sub(1) as f64;
        passes as f64 * (25.0 + self.each(2.0, 4.0)) + flood
    }

    /// A donor part's own pins.
    fn wick_the_part(&self) -> f64 {
        30.0 + self.each(1.5, 3.0)
    }

    fn holes(&self) -> f64 {
        let holes = self.board.connector.holes() as f64;
        let one = match (self.choice.family, self.equipment.sucker) {
            (MethodFamily::HotSwap, _) => 0.0,
            // Emptied on the way; what light does not show through is done again.
            (MethodFamily::Pump, _) => 4.0,
            (_, _) if self.technique(&HOLES) == "drop-in" => 0.0,
            (_, Sucker::Vacuum) => 12.0,
            (_, Sucker::Pump) => 20.0,
            (_, Sucker::None) => 35.0,
        };
        holes * one * if self.board.stack.is_dense() { 1.5 } else { 1.0 }
    }

    fn fit(&self) -> TimeSpent {
        let hold = self.plan.solid_after_s.map_or(15.0, |hold| hold.mid);
        let by_air = self.plan.recipe.air.is_some() && self.technique(&SET) != "iron";
        // The same heat again sinks the new part; with the iron it is pin by pin.
        let set = match (self.choice.family, by_air) {
            (MethodFamily::HotSwap, _) => 10.0,
            (_, true) => self.heat().seconds.mid,
            (_, false) => self.each(4.0, 7.0),
        };
        let hands = by_hand(
            if self.choice.family == MethodFamily::HotSwap { 40.0 } else { 90.0 } * self.equipment.level.pace(),
        );
        let add = |hands: f64| hands + set + hold;
        TimeSpent {
            piece: TimePiece::Fit,
            seconds: Band { low: add(hands.low), mid: add(hands.mid), high: add(hands.high) },
        }
    }

    fn touch_up(&self) -> f64 {
        let by_iron = self.plan.recipe.air.is_none() || self.technique(&SET) == "iron";
        let one = |joint: &Joint| match (joint.hidden, joint.is_pin()) {
            (true, _) => 0.0,
            (false, true) if by_iron || self.technique(&SET) == "air" => 1.0,
            (false, true) => 3.0,
            (false, false) => 12.0,
        };
        self.joints().iter().map(one).sum()
    }

    fn clean(&self) -> f64 {
        let flooded = self.plan.recipe.bridge.is_some() || self.composition.fed().is_some();
        150.0 + if flooded { 60.0 } else { 0.0 }
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::example::Bench;
    use crate::method::equipment::SkillLevel;
    use crate::method::techniques::Techniques;
    use crate::planning::make_plan::plan_alone;

    struct Timed {
        bench: Bench,
        plan: Plan,
        family: MethodFamily,
        techniques: Techniques,
        keep_intact: KeepIntact,
    }

    impl Timed {
        fn usual() -> Self {
            let bench = Bench::try_new().expect("the example");
            let plan = plan_alone(&bench.order()).expect("it can be computed");
            let (family, techniques) = (MethodFamily::FromBelow, Techniques::default());
            Self { bench, plan, family, techniques, keep_intact: KeepIntact::Board }
        }

        fn spent(&self) -> Vec<TimeSpent> {
            let choice = MethodChoice { family: self.family, techniques: self.techniques.clone() };
            bench_time(&TimedJob {
                board: &self.bench.board,
                composition: &self.bench.composition,
                plan: &self.plan,
                choice: &choice,
                equipment: &self.bench.equipment,
                keep_intact: self.keep_intact,
            })
        }

        fn on(&self, piece: TimePiece) -> f64 {
            self.spent().iter().find(|spent| spent.piece == piece).map_or(0.0, |spent| spent.seconds.mid)
        }
    }

    #[test]
    fn pieces_come_in_the_order_of_the_work_and_sum_up() {
        let spent = Timed::usual().spent();
        assert!(spent.is_sorted_by_key(|spent| spent.piece));
        let all = total(&spent);
        assert!((all.mid - spent.iter().map(|spent| spent.seconds.mid).sum::<f64>()).abs() < 1e-9);
        assert!(all.low < all.mid && all.mid < all.high);
    }

    #[test]
    fn learning_hands_take_longer_and_a_vacuum_iron_is_quicker_than_braid() {
        let mut timed = Timed::usual();
        let trained = timed.on(TimePiece::TouchUp);
        timed.bench.equipment.level = SkillLevel::Learning;
        assert!(timed.on(TimePiece::TouchUp) > 1.5 * trained);
        let pump = timed.on(TimePiece::Holes);
        timed.bench.equipment.sucker = Sucker::Vacuum;
        assert!(timed.on(TimePiece::Holes) < pump);
        timed.techniques = timed.techniques.with(&HOLES, "drop-in");
        assert_eq!(timed.on(TimePiece::Holes), 0.0, "holes that stay filled are not cleared");
    }

    #[test]
    fn a_hot_swap_wicks_nothing_and_a_donors_part_is_not_fitted() {
        let mut timed = Timed::usual();
        timed.family = MethodFamily::HotSwap;
        assert_eq!((timed.on(TimePiece::Wick), timed.on(TimePiece::Holes)), (0.0, 0.0));
        timed.family = MethodFamily::FromBelow;
        timed.keep_intact = KeepIntact::Part;
        assert_eq!((timed.on(TimePiece::Fit), timed.on(TimePiece::TouchUp)), (0.0, 0.0));
        assert!(timed.on(TimePiece::Wick) > 0.0, "its own pins are");
    }
}
