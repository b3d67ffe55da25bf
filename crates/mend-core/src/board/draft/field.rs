//! A typed field: reading numbers, choices and names, each refused with field, value and remedy.

use super::refusal::refuse;
use crate::board::Face;
use crate::finding::Finding;
use crate::units::Scale;

/// What was typed: the field, its text, and the scale of its temperatures.
#[derive(Clone, Copy)]
pub(super) struct FieldInput<'a> {
    pub(super) field: &'a str,
    pub(super) text: &'a str,
    pub(super) scale: Scale,
}

pub(super) fn no_field(field: &str) -> Finding {
    refuse(field, "is no field of this", "choose one that the page shows")
}

/// A number with its range; a comma is a point to many.
pub(super) fn number(field: &str, text: &str, ((low, high), unit): ((f64, f64), &str)) -> Result<f64, Finding> {
    let remedy = format!("between {low} and {high} {unit}");
    let value: f64 = text
        .trim()
        .replace(',', ".")
        .parse()
        .map_err(|_| refuse(field, format!("“{}” is no number", text.trim()), remedy.trim_end()))?;
    if (low..=high).contains(&value) {
        Ok(value)
    } else {
        Err(refuse(field, format!("{value} {unit} can't be"), remedy.trim_end()))
    }
}

/// A number, or nothing where nothing is typed.
pub(super) fn number_or_none(field: &str, text: &str, range: ((f64, f64), &str)) -> Result<Option<f64>, Finding> {
    if text.trim().is_empty() { Ok(None) } else { number(field, text, range).map(Some) }
}

/// A choice, by the word that formats write.
pub(super) fn choice<T: serde::de::DeserializeOwned>(field: &str, text: &str) -> Result<T, Finding> {
    let word = serde::de::value::StrDeserializer::<serde::de::value::Error>::new(text);
    T::deserialize(word)
        .map_err(|_| refuse(field, format!("“{text}” is none of the choices"), "choose one of the list"))
}

pub(super) fn name(field: &str, text: &str) -> Result<String, Finding> {
    let text = text.trim();
    let fits = (1..=80).contains(&text.chars().count()) && !text.contains(char::is_control);
    let message = format!("a name of {} characters", text.chars().count());
    if fits { Ok(text.to_owned()) } else { Err(refuse(field, message, "one line of 1 to 80 characters")) }
}

pub(super) fn face(text: &str) -> Result<Face, Finding> {
    choice("face", text)
}
