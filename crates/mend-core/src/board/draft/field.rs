//! A typed field: reading numbers, choices and names, each refused with field, value and remedy.

use super::refusal::refuse;
use crate::board::Face;
use crate::finding::Finding;
use crate::finding::problem::ValueProblem;
use crate::units::{Scale, Unit};

/// What was typed: the field, its text, and the scale of its temperatures.
#[derive(Clone, Copy)]
pub(super) struct FieldInput<'a> {
    pub(super) field: &'a str,
    pub(super) text: &'a str,
    pub(super) scale: Scale,
}

/// Longest name, characters.
const LONGEST_NAME: usize = 80;

pub(super) fn no_field(field: &str) -> Finding {
    refuse(field, ValueProblem::NoSuchField { known: Vec::new() })
}

/// What a number may be.
#[derive(Debug, Clone, Copy)]
pub(super) struct NumberRange {
    low: f64,
    high: f64,
    unit: Unit,
}

impl NumberRange {
    pub(super) const fn new(range: (f64, f64), unit: Unit) -> Self {
        Self { low: range.0, high: range.1, unit }
    }
}

/// A number within its range; a comma is a point to many.
pub(super) fn number(field: &str, text: &str, range: NumberRange) -> Result<f64, Finding> {
    let NumberRange { low, high, unit } = range;
    let text = text.trim();
    let none = |_| refuse(field, ValueProblem::NotANumber { text: text.to_owned(), low, high, unit });
    let value: f64 = text.replace(',', ".").parse().map_err(none)?;
    ValueProblem::outside(value, (low, high), unit).map_or(Ok(value), |problem| Err(refuse(field, problem)))
}

/// A number, or nothing where nothing is typed.
pub(super) fn number_or_none(field: &str, text: &str, range: NumberRange) -> Result<Option<f64>, Finding> {
    if text.trim().is_empty() { Ok(None) } else { number(field, text, range).map(Some) }
}

/// A choice, by the word that formats write.
pub(super) fn choice<T: serde::de::DeserializeOwned>(field: &str, text: &str) -> Result<T, Finding> {
    let word = serde::de::value::StrDeserializer::<serde::de::value::Error>::new(text);
    let none = |_| refuse(field, ValueProblem::NotAChoice { text: text.to_owned(), choices: Vec::new() });
    T::deserialize(word).map_err(none)
}

pub(super) fn name(field: &str, text: &str) -> Result<String, Finding> {
    let text = text.trim();
    let characters = text.chars().count();
    let fits = (1..=LONGEST_NAME).contains(&characters) && !text.contains(char::is_control);
    let bad = || refuse(field, ValueProblem::BadName { characters, most: LONGEST_NAME });
    if fits { Ok(text.to_owned()) } else { Err(bad()) }
}

pub(super) fn face(text: &str) -> Result<Face, Finding> {
    choice("face", text)
}
