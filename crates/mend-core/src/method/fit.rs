//! What speaks for a way and against it.

use super::reason::{Advantage, Caveat, Obstacle};

/// Reasons.
#[derive(Debug, Clone, Default, PartialEq)]
pub struct Fit {
    /// What speaks for it.
    pub speaks_for: Vec<Advantage>,
    /// Why it can't be done here; empty: it applies.
    pub against: Vec<Obstacle>,
    /// What to mind where it is done all the same.
    pub minds: Vec<Caveat>,
    /// Why it can't be done unless the run says that every joint stays molten until the last is.
    pub unless_all_melt: Option<Obstacle>,
}

impl Fit {
    /// Can it be done here?
    pub fn applies(&self) -> bool {
        self.against.is_empty()
    }

    /// With a reason for it, where that holds.
    pub fn good(mut self, holds: bool, reason: Advantage) -> Self {
        self.speaks_for.extend(holds.then_some(reason));
        self
    }

    /// With a reason against it, where that holds.
    pub fn not(mut self, holds: bool, reason: Obstacle) -> Self {
        self.against.extend(holds.then_some(reason));
        self
    }

    /// With a reason against it, where there is one.
    pub fn not_any(mut self, reason: Option<Obstacle>) -> Self {
        self.against.extend(reason);
        self
    }

    /// With a reason against it that counts unless the run says that every joint stays molten.
    pub fn not_unless_all_melt(mut self, holds: bool, reason: Obstacle) -> Self {
        self.unless_all_melt = holds.then_some(reason);
        self
    }

    /// With a thing to mind, where that holds.
    pub fn mind(mut self, holds: bool, reason: Caveat) -> Self {
        self.minds.extend(holds.then_some(reason));
        self
    }

    /// With a thing to mind, where there is one.
    pub fn mind_any(mut self, reason: Option<Caveat>) -> Self {
        self.minds.extend(reason);
        self
    }
}
