//! What the store keeps as the text of some JSON, as a value of a file, and back.

use serde_json::Value;

/// JSON as it is stored; text that is none stays text.
pub(super) fn value(text: &str) -> Value {
    if text.is_empty() {
        return Value::Null;
    }
    serde_json::from_str(text).unwrap_or_else(|_| Value::String(text.to_owned()))
}

/// The same the other way round.
pub(super) fn stored(value: &Value) -> String {
    if value.is_null() { String::new() } else { value.to_string() }
}
