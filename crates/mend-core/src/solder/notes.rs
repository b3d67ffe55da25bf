//! What must be known beside a melt curve: which corners of the model were never tried, what is published, what could not be
//! computed.

use serde::Serialize;

use super::melt_curve::MeltCurve;
use super::parameters::rest_on_start_values;
use crate::materials::{Alloy, Composition, Element};

/// From this share on an element's interactions count, wt%.
const COUNTS: f64 = 2.0;

/// A note.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[serde(tag = "kind", rename_all = "kebab-case")]
pub enum MeltNote {
    /// Two elements together that were never tried in this model.
    UntriedPair { elements: [Element; 2] },
    /// An element that was tried with these alone.
    TriedOnlyWith { element: Element, with: [Element; 2] },
    /// More of an element than was ever tried, wt%.
    UntriedShare { element: Element, above_percent: f64 },
    /// How two elements mix is a published estimate that was never fitted.
    NeverFitted { elements: [Element; 2] },
    /// A published alloy: its melting range, °C, and what is noted of it.
    Published { name: &'static str, solidus_c: f64, liquidus_c: f64, note: &'static str },
    /// A figure that could not be computed.
    NotComputed { figure: MeltFigure },
}

/// A figure of a melt curve.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[serde(rename_all = "kebab-case")]
pub enum MeltFigure {
    /// Liquidus.
    Liquidus,
    /// Working temperature: 98 % liquid.
    Working,
    /// Solidus.
    Solidus,
    /// Where the last liquid freezes without equilibrium.
    ScheilEnd,
}

fn published(row: &'static Alloy) -> MeltNote {
    let Alloy { name, solidus_c, liquidus_c, note, .. } = row;
    MeltNote::Published { name, solidus_c: *solidus_c, liquidus_c: *liquidus_c, note }
}

/// Corners of the model in which no published alloy was tried.
fn untried(composition: &Composition) -> Vec<MeltNote> {
    let wt = |element| composition.wt(element);
    let mut notes = Vec::new();
    if wt(Element::Sb) > COUNTS && wt(Element::In) > COUNTS {
        notes.push(MeltNote::UntriedPair { elements: [Element::Sb, Element::In] });
    }
    if wt(Element::Zn) > COUNTS && wt(Element::Pb) + wt(Element::In) + wt(Element::Ag) > COUNTS {
        notes.push(MeltNote::TriedOnlyWith { element: Element::Zn, with: [Element::Sn, Element::Bi] });
    }
    const MOST_TRIED: f64 = 5.0;
    let much = [Element::Ag, Element::Cu].into_iter().filter(|element| wt(*element) > MOST_TRIED);
    notes.extend(much.map(|element| MeltNote::UntriedShare { element, above_percent: MOST_TRIED }));
    let many = |e: &Element| wt(*e) > COUNTS;
    let present: Vec<Element> = Element::ALL.into_iter().filter(many).collect();
    notes.extend(rest_on_start_values(&present).map(|elements| MeltNote::NeverFitted { elements }));
    notes
}

impl MeltCurve {
    /// What must be known beside it.
    pub fn notes(&self) -> Vec<MeltNote> {
        let mut notes = untried(&self.composition);
        notes.extend(self.published.map(published));
        let figures = [
            (MeltFigure::Liquidus, self.liquidus.is_none()),
            (MeltFigure::Working, self.t98.is_none()),
            (MeltFigure::Solidus, self.solidus.is_none()),
            (MeltFigure::ScheilEnd, self.scheil_end.is_none()),
        ];
        let missing = figures.into_iter().filter(|(_, gone)| *gone);
        notes.extend(missing.map(|(figure, _)| MeltNote::NotComputed { figure }));
        notes
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::materials::Metal;
    use crate::solder::melt_curve;

    fn notes(text: &str) -> Vec<MeltNote> {
        melt_curve(&Metal::parse("alloy", text).expect("a metal").composition).notes()
    }

    #[test]
    fn a_published_alloy_is_named_with_its_range_and_a_mix_is_not() {
        let published =
            |note: &MeltNote| matches!(note, MeltNote::Published { name: "Sn63Pb37", liquidus_c: 183.0, .. });
        assert!(notes("Sn63Pb37").iter().any(published));
        assert!(!notes("Sn63Pb37=50,SAC305=50").iter().any(|note| matches!(note, MeltNote::Published { .. })));
    }

    #[test]
    fn corners_of_the_model_that_were_never_tried_are_named() {
        let pair = MeltNote::UntriedPair { elements: [Element::Sb, Element::In] };
        assert!(notes("Sn=85,Sb=5,In=10").contains(&pair));
        let silver = MeltNote::UntriedShare { element: Element::Ag, above_percent: 5.0 };
        assert!(notes("Sn=90,Ag=10").contains(&silver));
        assert!(notes("SAC305").iter().all(|note| !matches!(note, MeltNote::UntriedShare { .. })));
    }
}
