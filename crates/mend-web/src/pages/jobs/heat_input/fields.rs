//! One field of the form: what is no number, no whole number or none of the choices is objected to by its name.

use std::str::FromStr;

use mend_core::finding::Finding;
use mend_core::units::Temperature;

use super::FormInput;
use crate::pages::number::number;

impl FormInput {
    pub(super) fn get(&self, name: &str) -> Option<&str> {
        self.fields.iter().find(|(field, _)| field == name).map(|(_, value)| value.as_str())
    }

    pub(super) fn number(&mut self, name: &str) -> f64 {
        let typed = self.get(name).unwrap_or_default().to_owned();
        number("settings", name, &typed, &mut self.bad)
    }

    /// The same for a field that may be left out.
    pub(super) fn number_or_zero(&mut self, name: &str) -> f64 {
        if self.get(name).is_some() { self.number(name) } else { 0.0 }
    }

    /// The number in a field that may be left empty.
    pub(super) fn filled(&mut self, name: &str) -> Option<f64> {
        let is_empty = self.get(name).is_none_or(|typed| typed.trim().is_empty());
        (!is_empty).then(|| self.number(name))
    }

    pub(super) fn temperature(&mut self, name: &str) -> Temperature {
        let value = self.number(name);
        self.scale.read(value)
    }

    /// One of the words of a format.
    pub(super) fn word<T: serde::de::DeserializeOwned>(&mut self, name: &str, usual: T) -> T {
        let typed = self.get(name).unwrap_or_default().to_owned();
        serde_json::from_value(serde_json::Value::String(typed.clone())).unwrap_or_else(|_| {
            let object = Finding::written("settings", name, format!("“{typed}” is none of the choices"));
            self.bad.push(object.hint("choose one that the form offers"));
            usual
        })
    }

    /// One of the words of a format, or the usual one where a form does not ask.
    pub(super) fn word_if_asked<T: serde::de::DeserializeOwned>(&mut self, name: &str, usual: T) -> T {
        if self.get(name).is_some() { self.word(name, usual) } else { usual }
    }

    pub(super) fn whole(&mut self, name: &str) -> u32 {
        let typed = self.get(name).unwrap_or_default().to_owned();
        u32::from_str(typed.trim()).unwrap_or_else(|_| {
            let object = Finding::written("settings", name, format!("“{typed}” is no whole number"));
            self.bad.push(object.hint("type digits, like 2"));
            1
        })
    }
}
