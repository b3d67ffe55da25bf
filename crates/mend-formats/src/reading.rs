//! Reading JSON with objections that name the field, the value and the remedy.

use mend_core::finding::Finding;
use serde::de::DeserializeOwned;

/// Larger files are refused before they are parsed, bytes.
pub(crate) const LARGEST: usize = 2 * 1024 * 1024;

/// Parses a whole file of one format.
pub(crate) fn json<T: DeserializeOwned>(rule: &str, bytes: &[u8]) -> Result<T, Vec<Finding>> {
    json_up_to(rule, (bytes, LARGEST))
}

/// The same for a format whose files may be larger.
pub(crate) fn json_up_to<T: DeserializeOwned>(rule: &str, (bytes, largest): (&[u8], usize)) -> Result<T, Vec<Finding>> {
    if bytes.len() > largest {
        let message = format!("{:.1} MB", bytes.len() as f64 / 1e6);
        let hint = format!("files of this format are up to {} MB", largest / (1024 * 1024));
        return Err(vec![Finding::blocking(rule, "file", message).hint(hint)]);
    }
    let mut reader = serde_json::Deserializer::from_slice(bytes);
    let parsed = serde_path_to_error::deserialize(&mut reader).map_err(|error| {
        let path = error.path().to_string();
        let place = if matches!(path.as_str(), "." | "?") { "file".to_owned() } else { path };
        vec![Finding::blocking(rule, place, error.inner().to_string()).hint("see docs/formats for what belongs here")]
    })?;
    match reader.end() {
        Ok(()) => Ok(parsed),
        Err(error) => Err(vec![Finding::blocking(rule, "file", error.to_string()).hint("one JSON object per file")]),
    }
}

/// Objects when the `format` field is not the one expected.
pub(crate) fn expect_format(rule: &str, found: &str, expected: &str) -> Result<(), Vec<Finding>> {
    if found == expected {
        return Ok(());
    }
    let message = format!("“{found}” is not “{expected}”");
    Err(vec![Finding::blocking(rule, "format", message).hint(format!("write \"format\": \"{expected}\""))])
}

/// A word of a file from outside, so that it can be shown: nothing that is no letter, and not too long.
pub(crate) fn shown(word: &str, most: usize) -> String {
    word.chars().filter(|c| !c.is_control()).take(most).collect()
}

/// The name of the format that a file says it is of; none where it says nothing.
pub fn format_of(bytes: &[u8]) -> Option<String> {
    #[derive(serde::Deserialize)]
    struct Named {
        format: String,
    }
    serde_json::from_slice::<Named>(bytes).ok().map(|named| named.format)
}
