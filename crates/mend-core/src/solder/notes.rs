//! What a person should know of a computed curve: where the model was never tried, and what else is said of the alloy.

use super::melt_curve::MeltCurve;
use super::parameters::rest_on_start_values;
use crate::materials::{Composition, Element};

/// From this share on an element takes part in a note, wt%.
const COUNTS: f64 = 2.0;

/// Remarks on a curve, each a sentence.
pub(super) fn notes(curve: &MeltCurve) -> Vec<String> {
    let mut notes = untried(&curve.composition);
    if let Some(row) = curve.published {
        let (low, high) = (row.solidus_c, row.liquidus_c);
        let found = if row.note.is_empty() { String::new() } else { format!(" ({})", row.note) };
        notes.push(format!("{} is published as melting from {low:.0} to {high:.0} °C{found}.", row.name));
    }
    let missing = [
        ("liquidus", curve.liquidus.is_none()),
        ("working temperature", curve.t98.is_none()),
        ("solidus", curve.solidus.is_none()),
        ("Scheil end", curve.scheil_end.is_none()),
    ];
    notes
        .extend(missing.iter().filter(|(_, gone)| *gone).map(|(what, _)| format!("The {what} could not be computed.")));
    notes
}

/// Corners of the model in which no published alloy was tried.
fn untried(composition: &Composition) -> Vec<String> {
    let wt = |element| composition.wt(element);
    let mut notes = Vec::new();
    if wt(Element::Sb) > COUNTS && wt(Element::In) > COUNTS {
        notes.push("Antimony together with indium was never tried in this model.".to_owned());
    }
    if wt(Element::Zn) > COUNTS && wt(Element::Pb) + wt(Element::In) + wt(Element::Ag) > COUNTS {
        notes.push("Zinc was tried with tin and bismuth only.".to_owned());
    }
    for element in [Element::Ag, Element::Cu] {
        if wt(element) > 5.0 {
            notes.push(format!("More than 5 % of {} was never tried in this model.", element.name()));
        }
    }
    let many = |e: &Element| wt(*e) > COUNTS;
    let present: Vec<Element> = Element::ALL.into_iter().filter(many).collect();
    for [a, b] in rest_on_start_values(&present) {
        notes.push(format!("How {} and {} mix is a published estimate that was never fitted.", a.name(), b.name()));
    }
    notes
}

impl MeltCurve {
    /// What a person should know of it, a sentence each.
    pub fn notes(&self) -> Vec<String> {
        notes(self)
    }
}
