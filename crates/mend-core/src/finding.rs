//! An objection: what is wrong, where, and the way out. Rules report all of them at once.

use serde::{Deserialize, Serialize};

/// How much an objection weighs. Ordered.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Serialize, Deserialize)]
#[serde(rename_all = "kebab-case")]
pub enum Severity {
    /// Worth knowing.
    Note,
    /// Likely to hurt; work can go on.
    Warning,
    /// Can't be computed or must not be done.
    Blocking,
}

/// What a rule has to say.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
pub struct Finding {
    /// The rule that objects, as its file is named.
    pub rule: String,
    /// How much it weighs.
    pub severity: Severity,
    /// The field, joint or component it is about, as the person entered it.
    pub place: String,
    /// What is wrong, with the value.
    pub message: String,
    /// What would mend it.
    pub hint: String,
}

impl Finding {
    /// A blocking objection by `rule` about `place`.
    pub fn blocking(rule: &str, place: impl Into<String>, message: impl Into<String>) -> Self {
        Self {
            rule: rule.to_owned(),
            severity: Severity::Blocking,
            place: place.into(),
            message: message.into(),
            hint: String::new(),
        }
    }
    /// The same, as a warning.
    pub fn warning(rule: &str, place: impl Into<String>, message: impl Into<String>) -> Self {
        Self { severity: Severity::Warning, ..Self::blocking(rule, place, message) }
    }
    /// With the way out.
    pub fn hint(self, hint: impl Into<String>) -> Self {
        Self { hint: hint.into(), ..self }
    }
}

/// Is there one among them that forbids going on?
pub fn any_blocking(findings: &[Finding]) -> bool {
    findings.iter().any(|finding| finding.severity == Severity::Blocking)
}

/// Names in running text: `C7, C8, C9 and 3 more`.
pub fn list(names: &[&str]) -> String {
    const NAMED: usize = 3;
    match names.len() {
        0..=NAMED => names.join(", "),
        many => format!("{} and {} more", names[..NAMED].join(", "), many - NAMED),
    }
}

/// The same text, beginning with a capital.
pub fn capital(text: &str) -> String {
    let mut letters = text.chars();
    letters.next().map_or(String::new(), |first| first.to_uppercase().chain(letters).collect())
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn many_names_are_cut_to_three() {
        assert_eq!(list(&[]), "");
        assert_eq!(list(&["a", "b", "c"]), "a, b, c");
        assert_eq!(list(&["a", "b", "c", "d", "e"]), "a, b, c and 2 more");
    }

    #[test]
    fn only_a_blocking_one_blocks() {
        let warning = Finding::warning("r", "p", "m").hint("h");
        assert!(!any_blocking(std::slice::from_ref(&warning)));
        assert!(any_blocking(&[warning, Finding::blocking("r", "p", "m")]));
    }
}
