//! Reading JSON with objections that name the field, the value and the remedy.

use mend_core::finding::Finding;
use serde::de::DeserializeOwned;

/// Larger files are refused before they are parsed, bytes.
pub(crate) const LARGEST: usize = 2 * 1024 * 1024;

/// Parses a whole file of one format.
pub(crate) fn json<T: DeserializeOwned>(rule: &str, bytes: &[u8]) -> Result<T, Vec<Finding>> {
    json_up_to(rule, bytes, LARGEST)
}

/// The same for a format whose files may be larger.
pub(crate) fn json_up_to<T: DeserializeOwned>(rule: &str, bytes: &[u8], largest: usize) -> Result<T, Vec<Finding>> {
    if bytes.len() > largest {
        let message = format!("{:.1} MB", bytes.len() as f64 / 1e6);
        let hint = format!("files of this format are up to {} MB", largest / (1024 * 1024));
        return Err(vec![Finding::written(rule, "file", message).hint(hint)]);
    }
    let mut reader = serde_json::Deserializer::from_slice(bytes);
    let parsed = serde_path_to_error::deserialize(&mut reader).map_err(|error| {
        let path = error.path().to_string();
        let place = if matches!(path.as_str(), "." | "?") { "file".to_owned() } else { path };
        vec![Finding::written(rule, place, error.inner().to_string()).hint("see docs/formats for what belongs here")]
    })?;
    match reader.end() {
        Ok(()) => Ok(parsed),
        Err(error) => Err(vec![Finding::written(rule, "file", error.to_string()).hint("one JSON object per file")]),
    }
}

/// A format as it is written, and its older names, which are still read.
pub(crate) struct Accepted {
    /// The name that is written.
    pub(crate) written: &'static str,
    /// Older names.
    pub(crate) older: &'static [&'static str],
}

impl Accepted {
    pub(crate) fn includes(&self, name: &str) -> bool {
        self.written == name || self.older.contains(&name)
    }
}

/// Objects when the `format` field names none of them.
pub(crate) fn expect_format(rule: &str, found: &str, accepted: &Accepted) -> Result<(), Vec<Finding>> {
    if accepted.includes(found) {
        return Ok(());
    }
    let expected = accepted.written;
    let message = format!("“{found}” is not “{expected}”");
    Err(vec![Finding::written(rule, "format", message).hint(format!("write \"format\": \"{expected}\""))])
}

/// A word of a file from outside, so that it can be shown: nothing that is no letter, and not too long.
pub(crate) fn shown(word: &str, most: usize) -> String {
    word.chars().filter(|c| !c.is_control()).take(most).collect()
}

/// Which of our formats a file is of.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum FileKind {
    /// A hot-air station.
    Station,
    /// A board model.
    Board,
    /// A connector of the shop's own library.
    Connector,
    /// What a shop has and can.
    Equipment,
    /// A shop's own settings.
    ShopSettings,
    /// A job with all that is on record of it.
    JobRecord,
    /// A job as the demo ships it.
    DemoJob,
    /// The opening map of a device model.
    Opening,
}

/// What a file says its format is.
pub(crate) fn format_name(bytes: &[u8]) -> Option<String> {
    #[derive(serde::Deserialize)]
    struct FormatName {
        format: String,
    }
    Some(serde_json::from_slice::<FormatName>(bytes).ok()?.format)
}

/// Which format a file says it is of, under its present name or an older one; none where it says nothing we know.
pub fn file_kind(bytes: &[u8]) -> Option<FileKind> {
    let named = format_name(bytes)?;
    let kinds = [
        (&crate::station::ACCEPTED, FileKind::Station),
        (&crate::board::ACCEPTED, FileKind::Board),
        (&crate::connector::ACCEPTED, FileKind::Connector),
        (&crate::equipment::ACCEPTED, FileKind::Equipment),
        (&crate::shop_settings::ACCEPTED, FileKind::ShopSettings),
        (&crate::record::ACCEPTED, FileKind::JobRecord),
        (&crate::shop::ACCEPTED, FileKind::DemoJob),
        (&crate::opening::ACCEPTED, FileKind::Opening),
    ];
    kinds.into_iter().find(|(accepted, _)| accepted.includes(&named)).map(|(_, kind)| kind)
}
