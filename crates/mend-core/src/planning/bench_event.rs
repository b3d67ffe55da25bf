//! What can happen at the bench, as it is stored.

use super::ledger::{Entry, LedgerAct};

/// What happened.
#[derive(Debug, Clone, PartialEq, Eq)]
pub enum Happening {
    /// On: starts the air, stamps "it moved", ends a step.
    Go,
    /// The abort time came first: air away, cool, try again.
    Stopped,
    /// Takes the event before it back, wherever it was.
    Undo,
    /// The joints of a row were seen to be liquid, all of them, for the first time.
    Shone {
        /// Which row.
        row: String,
    },
    /// An entry of the cleaning ledger.
    Ledger(Entry),
}

impl Happening {
    /// As it is stored.
    pub const fn name(&self) -> &'static str {
        match self {
            Self::Go => "go",
            Self::Stopped => "stopped",
            Self::Undo => "undo",
            Self::Shone { .. } => "shone",
            Self::Ledger(entry) => entry.act.name(),
        }
    }

    /// Read back; `row` is what it is about, `reason` that of an entry of the ledger.
    pub fn named(name: &str, row: &str, reason: &str) -> Option<Self> {
        match name {
            "go" => Some(Self::Go),
            "stopped" => Some(Self::Stopped),
            "undo" => Some(Self::Undo),
            "shone" => (!row.is_empty()).then(|| Self::Shone { row: row.to_owned() }),
            _ => LedgerAct::named(name)
                .map(|act| Self::Ledger(Entry { act, row: row.to_owned(), reason: reason.to_owned() })),
        }
    }
}

/// An event with its moment.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Event {
    /// What happened.
    pub what: Happening,
    /// When, ms since the run was opened.
    pub at_ms: i64,
}
