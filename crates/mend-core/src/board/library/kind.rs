//! What a kind of connector is: the sizes it asks for, and what it makes of them.

use std::ops::RangeInclusive;

use std::collections::BTreeMap;

use super::build::Made;
use crate::board::geometry::{Face, Point, Rect};
use crate::board::{Connector, ConnectorFamily};
use crate::finding::Finding;
use crate::finding::problem::ValueProblem;
use crate::units::{Length, Unit};

const RULE: &str = "connector_size";

/// Sizes by name; what is missing is as usual.
pub type Values = BTreeMap<String, f64>;

/// A kind of connector.
#[derive(Debug, Clone, Copy)]
pub struct LibraryConnector {
    /// Its name in files and addresses.
    pub key: &'static str,
    /// Its name as a technician says it.
    pub name: &'static str,
    /// How one knows it on the bench.
    pub known_by: &'static str,
    /// How its joints and body are, and which habits apply.
    pub family: ConnectorFamily,
    /// The sizes it asks for.
    pub params: &'static [Param],
    /// What its functional test must cover.
    pub tests: &'static [&'static str],
    pub(super) build: fn(&Sizes<'_>) -> Made,
}

/// A size, or a choice.
#[derive(Debug, Clone, Copy)]
pub struct Param {
    /// Its name in files.
    pub key: &'static str,
    /// What it is called.
    pub label: &'static str,
    /// Millimetres, or none for a count.
    pub unit: Unit,
    /// What it usually is.
    pub usual: f64,
    /// Which values there are.
    pub among: Among,
}

/// The values of a size.
#[derive(Debug, Clone, Copy)]
pub enum Among {
    /// Any from the first to the second.
    Range(f64, f64),
    /// A whole number from the first to the second.
    Whole(f64, f64),
    /// One of these, by name.
    Choice(&'static [(f64, &'static str)]),
}

impl Param {
    pub(super) const fn mm(key: &'static str, label: &'static str, usual: f64, range: RangeInclusive<f64>) -> Self {
        Self { key, label, unit: Unit::Millimetres, usual, among: Among::Range(*range.start(), *range.end()) }
    }
    pub(super) const fn count(key: &'static str, label: &'static str, usual: f64, range: RangeInclusive<f64>) -> Self {
        Self { key, label, unit: Unit::One, usual, among: Among::Whole(*range.start(), *range.end()) }
    }
    pub(super) const fn choice(
        key: &'static str,
        label: &'static str,
        usual: f64,
        among: &'static [(f64, &'static str)],
    ) -> Self {
        Self { key, label, unit: Unit::One, usual, among: Among::Choice(among) }
    }

    /// Its lowest and its highest value.
    pub fn ends(&self) -> [f64; 2] {
        match self.among {
            Among::Range(low, high) | Among::Whole(low, high) => [low, high],
            Among::Choice(all) => [all.first().map_or(0.0, |c| c.0), all.last().map_or(0.0, |c| c.0)],
        }
    }

    fn object(&self, value: f64) -> Option<Finding> {
        let problem = match self.among {
            Among::Range(low, high) => ValueProblem::outside(value, (low, high), self.unit)?,
            Among::Whole(low, high) if (low..=high).contains(&value) && value.fract() == 0.0 => return None,
            Among::Whole(low, high) => ValueProblem::NotWhole { value, low, high },
            Among::Choice(all) if all.iter().any(|c| c.0 == value) => return None,
            Among::Choice(all) => {
                let choices = all.iter().map(|c| c.1.to_owned()).collect();
                ValueProblem::NotAChoice { text: value.to_string(), choices }
            }
        };
        Some(Finding::blocking(RULE, self.key, problem))
    }
}

/// The sizes that a kind is made with.
pub(super) struct Sizes<'a> {
    kind: &'a LibraryConnector,
    values: &'a Values,
}

impl Sizes<'_> {
    /// The value of a size. Asking for one that the kind has not would be our mistake: it is no number, and the tests of
    /// all kinds see it.
    pub(super) fn get(&self, key: &str) -> f64 {
        let usual = || self.kind.params.iter().find(|p| p.key == key).map_or(f64::NAN, |p| p.usual);
        self.values.get(key).copied().unwrap_or_else(usual)
    }
    /// A count.
    pub(super) fn count(&self, key: &str) -> usize {
        self.get(key).round() as usize
    }
}

impl LibraryConnector {
    /// The connector of these sizes, or every size that can't be.
    ///
    /// ```
    /// use mend_core::board::library::{Values, kind};
    /// let flex = kind("flex").expect("in the library");
    /// let made = flex.make(&Values::from([("ways".to_owned(), 40.0)])).expect("forty ways can be");
    /// assert!(made.joints.len() > 40, "ways and anchors");
    /// assert_eq!(flex.make(&Values::from([("ways".to_owned(), 99.0)])).expect_err("too many")[0].place, "ways");
    /// ```
    pub fn make(&self, values: &Values) -> Result<Connector, Vec<Finding>> {
        let object = |(key, value): (&String, &f64)| match self.params.iter().find(|p| p.key == key.as_str()) {
            Some(param) => param.object(*value),
            None => {
                let known = self.params.iter().map(|p| p.key.to_owned()).collect();
                Some(Finding::blocking(RULE, key.as_str(), ValueProblem::NoSuchField { known }))
            }
        };
        let found: Vec<Finding> = values.iter().filter_map(object).collect();
        if !found.is_empty() {
            return Err(found);
        }
        let Made { body, joints } = (self.build)(&Sizes { kind: self, values });
        Ok(Connector {
            name: self.name.to_owned(),
            family: self.family,
            face: Face::Top,
            body: Rect { centre: Point { x: 0.0, y: 0.0 }, width: body.width, depth: body.depth },
            height: Length::mm(body.height),
            material: body.material,
            shell: body.shell,
            pegs: body.pegs,
            joints,
            tests: self.tests.iter().map(|&test| test.to_owned()).collect(),
        })
    }
}
