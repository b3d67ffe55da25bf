//! The lists of what is looked at and measured on the pins' picture, and at which stop each is entered.

use mend_core::inspection::sheet::SheetPhase;
use mend_core::shop::Stop;

use crate::job::{BETWEEN, CONDITION, CONDITION_AFTER};

/// A list.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(crate) enum LookList {
    /// The lands as they are found.
    Lands,
    /// A diode sheet.
    Sheet(SheetPhase),
    /// The lands with the part off.
    Bare,
    /// Insulation between neighbours.
    Between,
}

impl LookList {
    /// All, in the order of the work: those of the look first, then those of the inspection.
    pub(crate) const ALL: [Self; 7] = [
        Self::Lands,
        Self::Sheet(SheetPhase::Before),
        Self::Sheet(SheetPhase::Off),
        Self::Bare,
        Self::Sheet(SheetPhase::Good),
        Self::Sheet(SheetPhase::After),
        Self::Between,
    ];

    /// As it is stored.
    pub(crate) const fn key(self) -> &'static str {
        match self {
            Self::Lands => CONDITION,
            Self::Sheet(phase) => phase.key(),
            Self::Bare => CONDITION_AFTER,
            Self::Between => BETWEEN,
        }
    }

    /// Read back.
    pub(crate) fn named(key: &str) -> Option<Self> {
        Self::ALL.into_iter().find(|list| list.key() == key)
    }

    /// As its tab is called.
    pub(crate) const fn name(self) -> &'static str {
        match self {
            Self::Lands => "Lands",
            Self::Sheet(SheetPhase::Before) => "Old part on",
            Self::Sheet(SheetPhase::Off) => "Port off",
            Self::Sheet(SheetPhase::After) => "New part on",
            Self::Sheet(SheetPhase::Good) => "A good board",
            Self::Bare => "Lands, bare",
            Self::Between => "Between pins",
        }
    }

    /// The stop that it belongs to.
    pub(crate) const fn stop(self) -> Stop {
        match self {
            Self::Sheet(SheetPhase::After) | Self::Between => Stop::Pins,
            _ => Stop::Look,
        }
    }

    /// Is it of lands, anchors included?
    pub(crate) const fn is_lands(self) -> bool {
        matches!(self, Self::Lands | Self::Bare)
    }
}
