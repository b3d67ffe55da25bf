//! What speaks for a way and against it, in words.

/// Reasons.
#[derive(Debug, Clone, Default, PartialEq)]
pub struct Fit {
    /// What speaks for it.
    pub speaks_for: Vec<String>,
    /// Why it can't be done here; empty: it applies.
    pub against: Vec<String>,
    /// What to mind where it is done all the same.
    pub minds: Vec<String>,
}

impl Fit {
    /// Can it be done here?
    pub fn applies(&self) -> bool {
        self.against.is_empty()
    }

    /// With a reason for it, where that holds.
    pub fn good(mut self, holds: bool, reason: impl Into<String>) -> Self {
        self.speaks_for.extend(holds.then(|| reason.into()));
        self
    }

    /// With a reason against it, where that holds.
    pub fn not(mut self, holds: bool, reason: impl Into<String>) -> Self {
        self.against.extend(holds.then(|| reason.into()));
        self
    }

    /// With a thing to mind, where that holds.
    pub fn mind(mut self, holds: bool, reason: impl Into<String>) -> Self {
        self.minds.extend(holds.then(|| reason.into()));
        self
    }
}
