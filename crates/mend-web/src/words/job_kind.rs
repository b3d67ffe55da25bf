//! What a job is for, in the words of its sheet and its pages.

use mend_core::method::JobKind;

/// What was done to the part, before its name on the sheet.
pub(crate) const fn done_to_part(kind: JobKind) -> &'static str {
    match kind {
        JobKind::Replace => "Replaced",
        JobKind::PutBack => "Put back",
        JobKind::Transfer => "Moved over",
        JobKind::Harvest => "Harvested",
        JobKind::RemoveOnly => "Taken off",
        JobKind::LookOnly => "Looked at",
    }
}

/// What the price is for.
pub(crate) fn price_line(kind: JobKind, part: &str) -> String {
    let part = if part.is_empty() { "the part" } else { part };
    match kind {
        JobKind::Replace => format!("Replacing {part}"),
        JobKind::PutBack => format!("Putting {part} back"),
        JobKind::Transfer => format!("Moving {part} over"),
        JobKind::Harvest => format!("Harvesting {part}"),
        JobKind::RemoveOnly => format!("Taking {part} off"),
        JobKind::LookOnly => "Diagnosis".to_owned(),
    }
}

/// Why a job is not given back yet.
pub(crate) const fn not_ready(kind: JobKind) -> &'static str {
    match kind {
        JobKind::Replace | JobKind::PutBack | JobKind::Transfer => "The pin walk is not sound yet",
        JobKind::Harvest | JobKind::RemoveOnly => "The bench run is not at its end yet",
        JobKind::LookOnly => "Nothing has been looked at or measured yet",
    }
}

/// The button that ends it.
pub(crate) const fn give_back(kind: JobKind) -> &'static str {
    match kind {
        JobKind::Harvest => "Put it into stock",
        _ => "Hand over",
    }
}

/// The button behind the last step at the bench.
pub(crate) const fn after_bench(kind: JobKind) -> &'static str {
    match kind {
        JobKind::Harvest => "To the stock",
        JobKind::RemoveOnly => "To the close",
        _ => "To the pin walk",
    }
}
