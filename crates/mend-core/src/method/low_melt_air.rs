//! Low-melt, then air: every joint flooded with a bismuth- or indium-bearing alloy, then mild air.

use super::fit::Fit;
use super::means::{Level, is_low_melt};
use super::start::{AirSpace, Start, Vary, air, fed};
use super::subject::Subject;
use super::{Family, Method, Words};
use crate::board::groups;
use crate::caution::Caution;
use crate::solder::{Charge, cycles};
use crate::units::Temperature;

/// Mild air (E).
const MILD: Temperature = Temperature::celsius(340.0);

/// See the head of this file.
#[derive(Debug)]
pub struct LowMeltAir;

static WORDS: Words = Words {
    name: "Low-melt, then air",
    how: "An alloy with bismuth or indium is mixed into every joint; mild air then melts the mix far below the factory's metal.",
    danger: "alloy left behind: weak joints later",
    early: &[
        "The alloy beads on top and does not wet: hold the tip until the board itself is hot.",
        "One joint stays matt in mild air: it was not fed.",
    ],
    clean_up: "Most: every trace out, fresh leaded on, off, on, off; clean tip, fresh braid each time.",
    heat: &["Air low and slow: nothing here needs more."],
    cue: "The fed joints shine long before flux smokes; the part slides under the grip.",
    not_coming: &["Feed again: a joint was missed.", "Twenty degrees more, not sixty.", "A wider outlet."],
    cautions: &[Caution::Burns, Caution::Fumes, Caution::Lead],
    level: Level::Trained,
};

impl LowMeltAir {
    /// What the job is fed already where that is low-melt; else of the stock what takes fewest passes to get out again.
    fn charge(subject: &Subject<'_>) -> Option<Charge> {
        if subject.charge.fed().is_some_and(|feed| is_low_melt(&feed.metal)) {
            return Some(subject.charge.clone());
        }
        let charges = subject.means.low_melt().filter_map(|alloy| fed(subject, alloy));
        let passes = |charge: &Charge| {
            let groups = groups(subject.board);
            groups.iter().map(|group| cycles(charge, group).unwrap_or(usize::MAX / 64)).max().unwrap_or(0)
        };
        charges.min_by_key(passes)
    }
}

impl Method for LowMeltAir {
    fn family(&self) -> Family {
        Family::LowMeltAir
    }

    fn words(&self) -> &'static Words {
        &WORDS
    }

    fn fit(&self, subject: &Subject<'_>) -> Fit {
        let (hidden, joints) = (subject.hidden(), subject.joints().len());
        let none = subject.means.low_melt().next().is_none() && Self::charge(subject).is_none();
        let shy = subject.must_live.part() && subject.is_shy();
        Fit::default()
            .not(subject.station.nozzles.is_empty(), "no hot-air outlet at this station")
            .not(none, "no low-melt alloy in stock")
            .not(!none && Self::charge(subject).is_none(), "the joints take none of the alloys in stock")
            .not(hidden == joints, "every joint is hidden: no tip gets the alloy in")
            .good(shy, "the part must live and is shy of heat: the mix melts far below its limit")
            .good(subject.is_heavy(), "a heavy board need not get to the factory's melting point")
            .good(subject.must_live == crate::board::MustLive::Part, "alloy left on a donor's board harms nobody")
            .mind(hidden > 0, format!("{hidden} hidden joints can't be fed and melt as the factory left them"))
            .mind(subject.must_live.board(), "what stays behind makes the new joints weak: the passes are arithmetic")
    }

    fn starts(&self, subject: &Subject<'_>) -> Vec<Start> {
        let Some(charge) = Self::charge(subject) else { return Vec::new() };
        let mild = |start: Start| {
            let vary = match start.vary {
                Vary::Air(space) => Vary::Air(AirSpace::mild(space, MILD)),
                other => other,
            };
            Start { vary, ..start }
        };
        let faces = [subject.board.hanging(), subject.board.connector.face];
        faces.into_iter().map(|face| mild(air(subject, charge.clone(), face))).collect()
    }
}
