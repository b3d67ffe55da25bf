//! What the alloy stop keeps of a job, as JSON in the store.

use mend_core::solder::CompositionEntry;

/// As the store keeps it.
pub fn write(entry: &CompositionEntry) -> Result<String, serde_json::Error> {
    serde_json::to_string(entry)
}

/// Read back; none where it is not of our format.
pub fn parse(json: &str) -> Option<CompositionEntry> {
    serde_json::from_str(json).ok()
}
