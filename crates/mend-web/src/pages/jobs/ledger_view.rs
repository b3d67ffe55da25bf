//! The cleaning ledger as it stands beside a step: what each group of joints still holds, and one tap per entry.

use mend_core::planning::ledger::GroupState;
use mend_core::planning::sequence::step::Duty;

use crate::job::BenchRunView;
use crate::words::{FindingView, Words};

/// More than this is not read at the bench.
const MOST_WORDS: usize = 2;

/// A group as it is read.
pub(crate) struct GroupLine {
    pub(crate) name: String,
    pub(crate) holds: String,
    /// `inside`, `near` or `past`.
    pub(crate) class: &'static str,
    pub(crate) glyph: &'static str,
    /// How often it was fed and wicked.
    pub(crate) done: String,
}

/// A tap.
pub(crate) struct Tap {
    pub(crate) act: &'static str,
    pub(crate) label: String,
    pub(crate) key: &'static str,
}

/// All of it.
pub(crate) struct LedgerView {
    pub(crate) groups: Vec<GroupLine>,
    /// What is wrong, each said once.
    pub(crate) words: Vec<String>,
    pub(crate) taps: Vec<Tap>,
    pub(crate) cleaning: bool,
    pub(crate) open: bool,
    pub(crate) reason: Option<String>,
    pub(crate) refit: String,
}

impl LedgerView {
    /// At the steps that have to do with it, where something is fed.
    pub(crate) fn from_run(bench: &BenchRunView, duty: Duty, in_words: Words) -> Option<Self> {
        let feed = bench.composition.fed()?;
        let tap = |act, label: String, key| Tap { act, label, key };
        let refit = bench.composition.refit.name.clone();
        let taps = match duty {
            Duty::None => return None,
            Duty::Feed => vec![tap("fed", format!("{} fed", feed.metal.name), "F")],
            Duty::Clean => {
                vec![tap("wicked", "Wick pass".to_owned(), "W"), tap("flooded", format!("Flooded with {refit}"), "F")]
            }
            Duty::Fit => vec![],
        };
        let flags = bench.ledger.groups.iter().flat_map(|group| &group.flags);
        let mut words: Vec<String> = Vec::new();
        for flag in flags {
            let FindingView { message, .. } = in_words.finding(flag);
            if !words.contains(&message) {
                words.push(message);
            }
        }
        Some(Self {
            words: words.into_iter().take(MOST_WORDS).collect(),
            groups: bench.ledger.groups.iter().map(line).collect(),
            taps,
            cleaning: duty == Duty::Clean,
            open: bench.ledger.is_open(),
            reason: bench.ledger.reason.clone(),
            refit,
        })
    }
}

fn line(group: &GroupState) -> GroupLine {
    let (class, glyph) = match (group.clean, group.flags.is_empty()) {
        (true, true) => ("inside", "●"),
        (true, false) => ("near", "◆"),
        (false, _) => ("past", "✕"),
    };
    let fed = if group.feeds > 0 { format!("fed {}×, ", group.feeds) } else { String::new() };
    let holds = in_words(group);
    GroupLine {
        name: group.name.clone(),
        holds: if holds.is_empty() { "clean".to_owned() } else { holds },
        class,
        glyph,
        done: format!("{fed}wicked {}×", group.passes),
    }
}

/// `Bi 0.2–1.1 %`, the elements that matter; empty where there is none.
pub(crate) fn in_words(group: &GroupState) -> String {
    let range = |low: f64, high: f64| {
        if high - low < 0.05 { format!("{high:.1}") } else { format!("{low:.1}–{high:.1}") }
    };
    let holds = group.holds.iter().map(|(element, low, high)| format!("{} {} %", element.symbol(), range(*low, *high)));
    holds.collect::<Vec<_>>().join(", ")
}
