//! How long a way keeps the hands busy: heat from the plan, everything else from what hands usually take. All of the latter
//! are engineering estimates of a trained hand (E, x0.75-1.4), to be replaced by the shop's own history.

use serde::{Deserialize, Serialize};

use super::band::Band;
use super::plan::Plan;
use crate::board::{Board, Joint, MustLive, groups};
use crate::heat::recipe::Recipe;
use crate::method::means::{Means, Sucker};
use crate::method::schools::{BRAID, HOLES, Question, SET, THIN};
use crate::method::{Choice, Family};
use crate::solder::{Charge, amount, cycles};

/// A trained hand's spread: eight in ten take from three quarters to half as long again (E).
const HANDS: [f64; 3] = [0.75, 1.0, 1.4];

/// What the time goes into, in the order of the work.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Serialize, Deserialize)]
#[serde(rename_all = "kebab-case")]
pub enum Piece {
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

impl Piece {
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
pub struct Spent {
    /// On what.
    pub piece: Piece,
    /// How long, s.
    pub seconds: Band,
}

/// What is timed.
#[derive(Debug, Clone, Copy)]
pub struct Timed<'a> {
    /// The board.
    pub board: &'a Board,
    /// What its joints hold and are fed.
    pub charge: &'a Charge,
    /// The plan.
    pub plan: &'a Plan,
    /// What is done, and by which schools.
    pub choice: &'a Choice,
    /// What the shop has and can.
    pub means: &'a Means,
    /// What must live.
    pub must_live: MustLive,
}

/// Flood-and-wick passes that get the feed out again; none: eight do not.
pub fn passes(board: &Board, charge: &Charge) -> Option<usize> {
    groups(board).iter().map(|group| cycles(charge, group)).collect::<Option<Vec<usize>>>()?.into_iter().max()
}

/// Every piece that takes any time, in order.
pub fn bench_time(timed: &Timed<'_>) -> Vec<Spent> {
    let hands = |piece, seconds: f64| Spent { piece, seconds: by_hand(seconds * timed.means.level.pace()) };
    let harvest = !timed.must_live.board();
    let spent = [
        hands(Piece::Ready, timed.ready()),
        hands(Piece::Feed, timed.feed()),
        timed.heat(),
        hands(Piece::Wick, if harvest { timed.wick_the_part() } else { timed.wick() }),
        hands(Piece::Holes, if harvest { 0.0 } else { timed.holes() }),
        if harvest { hands(Piece::Fit, 0.0) } else { timed.fit() },
        hands(Piece::TouchUp, if harvest { 0.0 } else { timed.touch_up() }),
        hands(Piece::Clean, timed.clean()),
    ];
    spent.into_iter().filter(|spent| spent.seconds.mid > 0.0).collect()
}

/// All of it together: pieces vary together as often as not, so their ends are added.
pub fn total(spent: &[Spent]) -> Band {
    let sum = |of: fn(&Band) -> f64| spent.iter().map(|spent| of(&spent.seconds)).sum();
    Band { low: sum(|b| b.low), mid: sum(|b| b.mid), high: sum(|b| b.high) }
}

fn by_hand(seconds: f64) -> Band {
    let [low, mid, high] = HANDS.map(|share| share * seconds);
    Band { low, mid, high }
}

impl Timed<'_> {
    fn joints(&self) -> &[Joint] {
        &self.board.connector.joints
    }

    fn each(&self, pad: f64, hole: f64) -> f64 {
        self.joints().iter().map(|joint| if joint.shape.is_hole() { hole } else { pad }).sum()
    }

    fn school(&self, question: &Question) -> &'static str {
        self.choice.schools.of(question)
    }

    fn ready(&self) -> f64 {
        let Recipe { shields, before, with, bridge, .. } = &self.plan.recipe;
        let plate = before.iter().any(|pass| pass.with.plate.is_some()) || with.plate.is_some();
        let wire = bridge.as_ref().is_some_and(|bridge| bridge.wire_mm > 0.0);
        // A wire is bent and soldered to joint after joint.
        let wire = if wire { 60.0 + 3.0 * self.joints().len() as f64 } else { 0.0 };
        60.0 + 45.0 * shields.len() as f64 + if plate { 30.0 } else { 0.0 } + wire
    }

    fn feed(&self) -> f64 {
        let flux = 20.0;
        let Some(_) = self.charge.fed() else {
            return flux + if self.school(&THIN) == "wick" { self.each(2.0, 5.0) } else { 0.0 };
        };
        let one = |group: &crate::board::JointGroup| {
            let rounds = amount(self.charge, group).map_or(0, |amount| amount.rounds) as f64;
            rounds * group.joints.len() as f64 * if group.holes { 9.0 } else { 4.0 }
        };
        flux + groups(self.board).iter().map(one).sum::<f64>()
    }

    /// From the first tool to the part in the tweezers.
    fn heat(&self) -> Spent {
        let Plan { recipe, release, stop, .. } = self.plan;
        let before = recipe.seconds_before() as f64;
        let mid = release.mid_s.unwrap_or(stop.at_s);
        // A stop line that comes before the usual release ends the heat later all the same: it is begun again.
        let late = release.high_s.unwrap_or(stop.at_s).max(mid);
        let low = release.low_s.unwrap_or(mid).min(mid);
        let lift = 5.0;
        Spent { piece: Piece::Heat, seconds: Band { low: low + before, mid: mid + before, high: late + before + lift } }
    }

    fn wick(&self) -> f64 {
        let passes = match (self.choice.family, self.charge.fed()) {
            (Family::HotSwap, _) => return 0.0,
            (_, Some(_)) => passes(self.board, self.charge).unwrap_or(8).max(1),
            (_, None) if self.school(&BRAID) == "holes-only" => return 0.0,
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
        let holes = self.joints().iter().filter(|joint| joint.shape.is_hole()).count() as f64;
        let one = match (self.choice.family, self.means.sucker) {
            (Family::HotSwap, _) => 0.0,
            // Emptied on the way; what light does not show through is done again.
            (Family::Pump, _) => 4.0,
            (_, _) if self.school(&HOLES) == "drop-in" => 0.0,
            (_, Sucker::Vacuum) => 12.0,
            (_, Sucker::Pump) => 20.0,
            (_, Sucker::None) => 35.0,
        };
        holes * one * if self.board.stack.is_dense() { 1.5 } else { 1.0 }
    }

    fn fit(&self) -> Spent {
        let hold = self.plan.hold_s.map_or(15.0, |hold| hold.mid);
        let by_air = self.plan.recipe.air.is_some() && self.school(&SET) != "iron";
        // The same heat again sinks the new part; with the iron it is pin by pin.
        let set = match (self.choice.family, by_air) {
            (Family::HotSwap, _) => 10.0,
            (_, true) => self.heat().seconds.mid,
            (_, false) => self.each(4.0, 7.0),
        };
        let hands = by_hand(if self.choice.family == Family::HotSwap { 40.0 } else { 90.0 } * self.means.level.pace());
        let add = |hands: f64| hands + set + hold;
        Spent { piece: Piece::Fit, seconds: Band { low: add(hands.low), mid: add(hands.mid), high: add(hands.high) } }
    }

    fn touch_up(&self) -> f64 {
        let by_iron = self.plan.recipe.air.is_none() || self.school(&SET) == "iron";
        let one = |joint: &Joint| match (joint.hidden, joint.is_pin()) {
            (true, _) => 0.0,
            (false, true) if by_iron || self.school(&SET) == "air" => 1.0,
            (false, true) => 3.0,
            (false, false) => 12.0,
        };
        self.joints().iter().map(one).sum()
    }

    fn clean(&self) -> f64 {
        let flooded = self.plan.recipe.bridge.is_some() || self.charge.fed().is_some();
        150.0 + if flooded { 60.0 } else { 0.0 }
    }
}
