//! A line of the sheet.

/// A line of the sheet.
pub(super) struct SheetLine {
    pub(super) what: String,
    pub(super) value: String,
}

pub(super) fn line(what: &str, value: impl Into<String>) -> SheetLine {
    SheetLine { what: what.to_owned(), value: value.into() }
}
