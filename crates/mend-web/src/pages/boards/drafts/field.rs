//! A field of a panel: what it is called, what it holds, and the act that a change of it is.

use mend_core::board::draft::Target;

use crate::draw::trace_map::target;

/// A choice of a list.
pub(crate) struct FieldChoice {
    pub(crate) value: String,
    pub(crate) label: String,
    pub(crate) chosen: bool,
}

/// A field.
pub(crate) struct FieldView {
    pub(crate) id: String,
    pub(crate) of: String,
    pub(crate) field: String,
    pub(crate) label: String,
    pub(crate) unit: String,
    pub(crate) value: String,
    /// `number`, `text`, `lines`, `choice`, `tick`.
    pub(crate) kind: &'static str,
    pub(crate) choices: Vec<FieldChoice>,
    /// What it is for, where that is not plain.
    pub(crate) hint: String,
}

/// The fields of one thing.
pub(crate) struct Fields {
    of: String,
    prefix: &'static str,
    pub(crate) all: Vec<FieldView>,
}

/// A field to add.
pub(crate) struct NamedField<'a> {
    fields: Fields,
    field: &'a str,
    label: &'a str,
}

impl NamedField<'_> {
    fn add(self, kind: &'static str, value: String) -> Fields {
        let Self { mut fields, field, label } = self;
        fields.all.push(FieldView {
            id: format!("{}-{field}", fields.prefix),
            of: fields.of.clone(),
            field: field.to_owned(),
            label: label.to_owned(),
            unit: String::new(),
            value,
            kind,
            choices: Vec::new(),
            hint: String::new(),
        });
        fields
    }

    /// A number with its unit.
    pub(crate) fn number(self, value: Option<f64>, unit: &str) -> Fields {
        let value = value.map_or(String::new(), short);
        self.add("number", value).with(|field| field.unit = unit.to_owned())
    }
    /// A line of text.
    pub(crate) fn text(self, value: &str) -> Fields {
        self.add("text", value.to_owned())
    }
    /// Some lines.
    pub(crate) fn lines(self, value: &str) -> Fields {
        self.add("lines", value.to_owned())
    }
    /// Yes or no.
    pub(crate) fn tick(self, value: bool) -> Fields {
        self.add("tick", value.to_string())
    }
    /// One of a list: value, label; the chosen one by its value.
    pub(crate) fn choice(self, chosen: &str, choices: Vec<(String, String)>) -> Fields {
        let choice = |(value, label): (String, String)| FieldChoice { chosen: value == chosen, value, label };
        let choices = choices.into_iter().map(choice).collect();
        self.add("choice", chosen.to_owned()).with(|field| field.choices = choices)
    }
}

impl Fields {
    pub(crate) fn for_target(of: Target, prefix: &'static str) -> Self {
        Self { of: target(of), prefix, all: Vec::new() }
    }

    /// A field by its name, with its label.
    pub(crate) const fn field<'a>(self, field: &'a str, label: &'a str) -> NamedField<'a> {
        NamedField { fields: self, field, label }
    }

    /// What the last field is for.
    pub(crate) fn hint(self, hint: &str) -> Self {
        self.with(|field| field.hint = hint.to_owned())
    }

    fn with(mut self, change: impl FnOnce(&mut FieldView)) -> Self {
        self.all.last_mut().map(change);
        self
    }
}

/// A number as a person types it: no more than three decimals, none that are nought.
pub(crate) fn short(value: f64) -> String {
    let text = format!("{value:.3}");
    let text = text.trim_end_matches('0').trim_end_matches('.');
    if text == "-0" { "0".to_owned() } else { text.to_owned() }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn numbers_are_short_and_never_minus_nought() {
        assert_eq!([12.5, 0.30004, -0.0001, 7.0].map(short), ["12.5", "0.3", "0", "7"]);
    }
}
