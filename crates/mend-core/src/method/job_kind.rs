//! What a job is for: which work it takes, and what of it comes through alive.

use serde::{Deserialize, Serialize};

use crate::board::KeepIntact;

/// What a job is for.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default, Serialize, Deserialize)]
#[serde(rename_all = "kebab-case")]
pub enum JobKind {
    /// The old part comes off, a new one goes on.
    #[default]
    Replace,
    /// A part that was knocked off, or nudged while liquid, goes back on its pads.
    PutBack,
    /// A part moves from one board or flex to another of the same footprint.
    Transfer,
    /// A part is taken from a donor into stock.
    Harvest,
    /// The part comes off, and nothing goes on.
    RemoveOnly,
    /// Looked at and measured, no heat.
    LookOnly,
}

impl JobKind {
    /// All of them, the usual first.
    pub const ALL: [Self; 6] =
        [Self::Replace, Self::PutBack, Self::Transfer, Self::Harvest, Self::RemoveOnly, Self::LookOnly];

    /// As it is stored and said.
    pub const fn name(self) -> &'static str {
        match self {
            Self::Replace => "replace",
            Self::PutBack => "put back",
            Self::Transfer => "transfer",
            Self::Harvest => "harvest",
            Self::RemoveOnly => "remove only",
            Self::LookOnly => "look only",
        }
    }

    /// Read back; where nothing was said it is a replacement.
    ///
    /// ```
    /// use mend_core::method::JobKind;
    /// assert_eq!((JobKind::named("harvest"), JobKind::named("")), (JobKind::Harvest, JobKind::Replace));
    /// ```
    pub fn named(name: &str) -> Self {
        Self::ALL.into_iter().find(|kind| kind.name() == name).unwrap_or_default()
    }

    /// Does a part come off?
    pub const fn removes(self) -> bool {
        matches!(self, Self::Replace | Self::Transfer | Self::Harvest | Self::RemoveOnly)
    }

    /// Does a part go on?
    pub const fn fits(self) -> bool {
        matches!(self, Self::Replace | Self::PutBack | Self::Transfer)
    }

    /// What has to come through alive, where the kind leaves no choice.
    pub const fn keep_intact(self) -> Option<KeepIntact> {
        match self {
            Self::Transfer | Self::Harvest => Some(KeepIntact::Part),
            Self::RemoveOnly => Some(KeepIntact::Board),
            Self::Replace | Self::PutBack | Self::LookOnly => None,
        }
    }
}
