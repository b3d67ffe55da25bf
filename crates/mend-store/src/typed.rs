//! What somebody has typed, or said.

/// A field of a form, and what was typed into it.
#[derive(Debug, Clone, Copy)]
pub struct TypedField<'a> {
    /// Its name.
    pub field: &'a str,
    /// What is in it now.
    pub value: &'a str,
}

impl<'a> TypedField<'a> {
    /// A field with its value.
    pub const fn new(field: &'a str, value: &'a str) -> Self {
        Self { field, value }
    }
}

/// The customer's word on something.
#[derive(Debug, Clone, Copy)]
pub struct CustomerWord<'a> {
    /// `accepted` or `declined`.
    pub answer: &'a str,
    /// Who gives it.
    pub who: &'a str,
    /// When, ms since the epoch.
    pub at_ms: i64,
}
