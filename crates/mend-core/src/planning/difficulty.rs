//! Go or no-go in words, before a price is agreed: from the board's mass, hidden rows, what stands near and can't be bought,
//! the margins where they are known, and whose hands it is.

use super::compare::Lane;
use super::plan::WindowState;
use crate::board::{Board, ComponentKind, KeepIntact};
use crate::method::equipment::SkillLevel;
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
    pub wants: SkillLevel,
    /// Why, heaviest first.
    pub reasons: Vec<String>,
    /// What to do about it, in a sentence.
    pub advice: &'static str,
}

impl Difficulty {
    /// Whose hands it wants, in a sentence.
    pub const fn hands(&self) -> &'static str {
        match self.wants {
            SkillLevel::Learning => "Somebody who is learning can do it beside one who knows.",
            SkillLevel::Trained => "It wants trained hands.",
            SkillLevel::Practised => "It wants practised hands.",
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

/// What comparing the methods has come to.
#[derive(Debug, Clone, Copy)]
pub enum Compared<'a> {
    /// They have not been compared.
    NotYet,
    /// They have, and none of them is good enough.
    NoneWorks,
    /// This one is recommended.
    Best(&'a Lane),
}

impl<'a> From<Option<&'a Lane>> for Compared<'a> {
    /// Of methods that have been compared, the recommended one.
    fn from(best: Option<&'a Lane>) -> Self {
        best.map_or(Self::NoneWorks, Self::Best)
    }
}

/// The reading of a subject, and of what comparing its methods has come to.
pub fn difficulty(subject: &Subject<'_>, compared: Compared<'_>) -> Difficulty {
    let mut weighed = board_reasons(subject.board);
    if subject.keep_intact != KeepIntact::Part {
        weighed.extend(rare_components(subject.board));
    }
    weighed.extend(margin_reason(compared));
    weighed.retain(|(weight, _)| *weight > 0);
    weighed.sort_by_key(|(weight, _)| std::cmp::Reverse(*weight));
    let sum: u32 = weighed.iter().map(|(weight, _)| weight).sum();
    let wants = match sum {
        0..=2 => SkillLevel::Learning,
        3..=5 => SkillLevel::Trained,
        _ => SkillLevel::Practised,
    };
    let closed = matches!(compared, Compared::NoneWorks);
    let go = match wants.cmp(&subject.equipment.level) {
        _ if closed => Go::No,
        std::cmp::Ordering::Greater => Go::No,
        std::cmp::Ordering::Equal if wants > SkillLevel::Learning => Go::WithCare,
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

type DifficultyPoint = (u32, String);

fn board_reasons(board: &Board) -> Vec<DifficultyPoint> {
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
fn rare_components(board: &Board) -> Vec<DifficultyPoint> {
    let rare = |thing| {
        matches!(
            thing,
            ComponentKind::Chip
                | ComponentKind::Microphone
                | ComponentKind::Display
                | ComponentKind::Crystal
                | ComponentKind::FlexLatch
        )
    };
    let near = board
        .components
        .iter()
        .filter(|n| n.what.is_some_and(rare) && crate::method::subject::apart(&board.connector.body, &n.body) < 12.0);
    let names: Vec<&str> = near.map(|n| n.name.as_str()).collect();
    let weight = (names.len() as u32).min(2);
    let list = names.iter().take(3).copied().collect::<Vec<_>>().join(", ");
    vec![(weight, format!("hard to come by if it is cooked: {list}"))]
}

fn margin_reason(compared: Compared<'_>) -> Option<DifficultyPoint> {
    let lane = match compared {
        Compared::NotYet => return None,
        Compared::NoneWorks => return Some((3, "no way here melts everything before something is damaged".to_owned())),
        Compared::Best(lane) => lane,
    };
    let tenths = (lane.plan.chance * 10.0).round();
    Some(match (&lane.plan.window, &lane.tightest) {
        (WindowState::Open, Some(tight)) if tight.inside => (0, String::new()),
        (WindowState::Open, None) => (0, String::new()),
        (WindowState::Open, Some(tight)) => {
            (1, format!("{} comes within {:.0} K of its limit", tight.name, tight.headroom_k.max(0.0)))
        }
        (_, _) => (3, format!("the best way works in {tenths:.0} of 10 only")),
    })
}
