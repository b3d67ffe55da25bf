//! Go or no-go in words, before a price is agreed: from the board's mass, hidden rows, what stands near and can't be bought,
//! the margins where they are known, and whose hands it is.

use super::compare::Lane;
use super::plan::Window;
use crate::board::{Board, MustLive, Thing};
use crate::method::means::Level;
use crate::method::subject::Subject;

/// The reading.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord)]
pub enum Go {
    /// A usual job.
    Go,
    /// It can be done; the risk belongs into the price and the consent.
    WithCare,
    /// Not by these hands, or not with what is here.
    No,
}

/// A reading with its reasons.
#[derive(Debug, Clone, PartialEq)]
pub struct Difficulty {
    /// The reading.
    pub go: Go,
    /// Whose hands it wants.
    pub wants: Level,
    /// Why, heaviest first.
    pub reasons: Vec<String>,
    /// What to do about it, in a sentence.
    pub advice: &'static str,
}

impl Difficulty {
    /// Whose hands it wants, in a sentence.
    pub const fn hands(&self) -> &'static str {
        match self.wants {
            Level::Learning => "Somebody who is learning can do it beside one who knows.",
            Level::Trained => "It wants trained hands.",
            Level::Practised => "It wants practised hands.",
        }
    }
}

impl Go {
    /// In two words.
    pub const fn name(self) -> &'static str {
        match self {
            Self::Go => "Go",
            Self::WithCare => "Go with care",
            Self::No => "No go",
        }
    }
}

/// The reading of a subject; `best` is the recommended lane, where methods have been compared, and why there is none else.
pub fn difficulty(subject: &Subject<'_>, best: Option<Option<&Lane>>) -> Difficulty {
    let mut weighed = board_reasons(subject.board);
    if subject.must_live != MustLive::Part {
        weighed.extend(rare_neighbours(subject.board));
    }
    weighed.extend(best.map(margin_reason));
    weighed.retain(|(weight, _)| *weight > 0);
    weighed.sort_by_key(|(weight, _)| std::cmp::Reverse(*weight));
    let sum: u32 = weighed.iter().map(|(weight, _)| weight).sum();
    let wants = match sum {
        0..=2 => Level::Learning,
        3..=5 => Level::Trained,
        _ => Level::Practised,
    };
    let closed = matches!(best, Some(None));
    let go = match wants.cmp(&subject.means.level) {
        _ if closed => Go::No,
        std::cmp::Ordering::Greater => Go::No,
        std::cmp::Ordering::Equal if wants > Level::Learning => Go::WithCare,
        _ if sum >= 4 => Go::WithCare,
        _ => Go::Go,
    };
    let advice = match go {
        Go::Go => "Usual price, usual consent.",
        Go::WithCare => "Say the risk before the price, and have consent on record.",
        Go::No if closed => "Take another tool, alloy or shield first, or decline.",
        Go::No => "Give it to practised hands, or decline before a price is agreed.",
    };
    let reasons = weighed.into_iter().map(|(_, reason)| reason).collect();
    Difficulty { go, wants, reasons, advice }
}

type Weighed = (u32, String);

fn board_reasons(board: &Board) -> Vec<Weighed> {
    let hidden = board.connector.joints.iter().filter(|joint| joint.hidden).count();
    let carries = board.carries_away() * 1e3;
    let pins = board.connector.joints.iter().filter(|joint| joint.is_pin()).count();
    vec![
        // 26 mW/K is a usual six-layer board; twice that takes a soak (E).
        (
            u32::from(carries > 45.0) + u32::from(carries > 90.0),
            format!("a heavy board: {} layers, {:.0} g bare", board.stack.layers, board.bare_weight_g()),
        ),
        (
            2 * u32::from(hidden > 0),
            format!("{hidden} joints are hidden: nobody sees them, one low pad is one open pin"),
        ),
        (u32::from(pins > 20), format!("{pins} pins to set and to walk")),
        (
            u32::from(board.connector.pegs > 0),
            format!("{} plastic feet want a pull while all is liquid", board.connector.pegs),
        ),
        (u32::from(board.stack.thickness.in_mm() > 1.8), format!("{} mm thick", board.stack.thickness.in_mm())),
    ]
}

/// Things near that can't be bought singly, within 12 mm of the part (E).
fn rare_neighbours(board: &Board) -> Vec<Weighed> {
    let rare =
        |thing| matches!(thing, Thing::Chip | Thing::Microphone | Thing::Display | Thing::Crystal | Thing::FlexLatch);
    let near = board
        .neighbours
        .iter()
        .filter(|n| n.what.is_some_and(rare) && crate::method::subject::apart(&board.connector.body, &n.body) < 12.0);
    let names: Vec<&str> = near.map(|n| n.name.as_str()).collect();
    let weight = (names.len() as u32).min(2);
    let list = names.iter().take(3).copied().collect::<Vec<_>>().join(", ");
    vec![(weight, format!("hard to come by if it is cooked: {list}"))]
}

fn margin_reason(best: Option<&Lane>) -> Weighed {
    let Some(lane) = best else { return (3, "no way here melts everything before something is hurt".to_owned()) };
    let tenths = (lane.plan.chance * 10.0).round();
    match (&lane.plan.window, &lane.tightest) {
        (Window::Open, Some(tight)) if tight.inside => (0, String::new()),
        (Window::Open, None) => (0, String::new()),
        (Window::Open, Some(tight)) => {
            (1, format!("{} comes within {:.0} K of its limit", tight.name, tight.margin_k.max(0.0)))
        }
        (_, _) => (3, format!("the best way works in {tenths:.0} of 10 only")),
    }
}
