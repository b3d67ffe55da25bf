//! What the job is for: the board, the part, or both. What need not live may be damaged, and is no longer in the way.

use serde::{Deserialize, Deserializer, Serialize};

/// What must come through alive.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default, Serialize)]
#[serde(rename_all = "kebab-case")]
pub enum KeepIntact {
    /// A customer's board gets a new part: the old one may deform.
    #[default]
    Board,
    /// A part is taken from a donor: its board is spent.
    Part,
    /// The same part goes back, or the board is used again: nothing may be damaged.
    Both,
}

impl KeepIntact {
    /// All of them.
    pub const ALL: [Self; 3] = [Self::Board, Self::Part, Self::Both];

    /// As it is written.
    pub const fn key(self) -> &'static str {
        match self {
            Self::Board => "board",
            Self::Part => "part",
            Self::Both => "both",
        }
    }

    /// Read back.
    pub fn named(key: &str) -> Option<Self> {
        Self::ALL.into_iter().find(|live| live.key() == key)
    }

    /// What that asks for, in a phrase.
    pub const fn phrase(self) -> &'static str {
        match self {
            Self::Board => "the old part may deform",
            Self::Part => "harvest: the donor's board is spent",
            Self::Both => "nothing may be damaged",
        }
    }

    /// Must the part's body stay under its limit?
    pub const fn part(self) -> bool {
        matches!(self, Self::Part | Self::Both)
    }

    /// Must board and components stay under theirs?
    pub const fn board(self) -> bool {
        matches!(self, Self::Board | Self::Both)
    }
}

/// What is read: the word, or true and false as plans were kept before there were three answers.
#[derive(Deserialize)]
#[serde(untagged)]
enum KeepIntactFile {
    Word(String),
    PartToo(bool),
}

impl<'de> Deserialize<'de> for KeepIntact {
    fn deserialize<D: Deserializer<'de>>(reader: D) -> Result<Self, D::Error> {
        match KeepIntactFile::deserialize(reader) {
            Ok(KeepIntactFile::PartToo(part)) => Ok(if part { Self::Both } else { Self::Board }),
            Ok(KeepIntactFile::Word(word)) if Self::named(&word).is_some() => {
                Ok(Self::named(&word).unwrap_or_default())
            }
            _ => Err(serde::de::Error::custom("expected what is kept intact: board, part or both")),
        }
    }
}
