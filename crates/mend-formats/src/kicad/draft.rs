//! A chosen part and everything near it, as a draft of a board.

use mend_core::board::draft::{Draft, DraftPart, MOST_COMPONENTS};
use mend_core::board::{Component, ComponentKind, Outline};
use mend_core::finding::Finding;

use super::RULE;
use super::footprint::Footprint;
use super::layout::Layout;
use super::notes::ImportNotes;
use super::part::connector;

/// What stands further from the part is not heated with it, mm (E: the far field of the heat run).
const NEAR_MM: f64 = 45.0;

/// The draft of a board round the footprint of that reference.
pub fn draft(layout: &Layout, name: &str, reference: &str) -> Result<(Draft, ImportNotes), Vec<Finding>> {
    let unknown = || {
        let object = Finding::written(RULE, "reference", format!("“{reference}” is not on this board"));
        vec![object.hint("choose one of the list")]
    };
    let chosen = layout.footprints.iter().position(|f| f.reference == reference).ok_or_else(unknown)?;
    let mut notes = ImportNotes::default();
    let part = connector(&layout.footprints[chosen], &mut notes)?;
    let at = part.body.centre;
    let away = |f: &Footprint| f.body.map_or(f64::INFINITY, |b| (b.centre.x - at.x).hypot(b.centre.y - at.y));
    let mut others: Vec<&Footprint> =
        layout.footprints.iter().enumerate().filter(|(k, _)| *k != chosen).map(|(_, f)| f).collect();
    others.sort_by(|a, b| away(a).total_cmp(&away(b)));
    let mut components: Vec<Component> = Vec::new();
    for other in others {
        if away(other) > NEAR_MM || components.len() >= MOST_COMPONENTS {
            notes.leave_out("footprint more than 45 mm from the part");
            continue;
        }
        components.extend(component(other, &components, &mut notes));
    }
    let stack = layout.stack_near(at, &mut notes);
    let outline = layout.outline.clone().unwrap_or(Outline { corners: Vec::new() });
    let draft = Draft { outline, stack, part: Some(DraftPart::standing(part)), components, ..Draft::new(name) };
    Ok((draft, notes))
}

fn component(footprint: &Footprint, before: &[Component], notes: &mut ImportNotes) -> Option<Component> {
    let body = footprint.body?;
    let Some(what) = ComponentKind::from_reference(&footprint.reference) else {
        let letters: String = footprint.reference.chars().take_while(char::is_ascii_alphabetic).collect();
        notes.leave_out(&format!("footprint “{letters}”: its letters say nothing of what it is"));
        return None;
    };
    if !((0.1..=300.0).contains(&body.width) && (0.1..=300.0).contains(&body.depth)) {
        notes.leave_out(&format!("{}: its size can't be", label(footprint)));
        return None;
    }
    notes.take(&format!("{} by its letters, {} mm high", what.name(), what.height().in_mm()));
    let mut name = label(footprint);
    if before.iter().any(|n| n.name == name) {
        name = format!("{name} ({})", before.len() + 1);
    }
    Some(what.at(name, footprint.face, body))
}

fn label(footprint: &Footprint) -> String {
    if footprint.reference.is_empty() { "no name".to_owned() } else { footprint.reference.clone() }
}
