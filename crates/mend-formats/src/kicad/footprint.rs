//! A footprint: its pads and the body that its drawing gives it.

use mend_core::board::{Face, Point, Rect};
use mend_core::finding::Finding;

use super::RULE;
use super::WORD;
use super::notes::ImportNotes;
use super::pads::{Pad, pad};
use super::sexpr::{Sexpr, read};
use super::tree::turned;
use crate::reading::shown;

/// A footprint where it stands.
#[derive(Debug, Clone, PartialEq)]
pub struct Footprint {
    /// `J3`.
    pub reference: String,
    /// Its value.
    pub value: String,
    /// The face it stands on.
    pub face: Face,
    /// Its pads.
    pub pads: Vec<Pad>,
    /// Its body from above, where anything was drawn.
    pub body: Option<Rect>,
}

/// A courtyard lies so far round its body, mm (E: 0.25 is the usual clearance).
const COURTYARD: f64 = 0.25;

/// Reads a footprint file.
pub fn footprint(bytes: &[u8]) -> Result<(Footprint, ImportNotes), Vec<Finding>> {
    let file = read(bytes)?;
    if !matches!(file.head(), "footprint" | "module") {
        let message = format!("begins with “{}”, not with a footprint", shown(file.head(), WORD));
        return Err(vec![Finding::written(RULE, "file", message).hint("choose a .kicad_mod file")]);
    }
    let mut notes = ImportNotes::default();
    let found = of_list(&file, &mut notes);
    Ok((found, notes))
}

/// A footprint list of a board, or of a file of its own.
pub(super) fn of_list(list: &Sexpr, notes: &mut ImportNotes) -> Footprint {
    let at = list.find("at");
    let origin = at.and_then(Sexpr::place).unwrap_or(Point { x: 0.0, y: 0.0 });
    let turn = at.and_then(|at| at.number(2)).unwrap_or(0.0);
    let face = if list.layers().contains(&"B.Cu") { Face::Bottom } else { Face::Top };
    let pads: Vec<Pad> = list.all("pad").filter_map(|p| pad(p, origin, turn, notes)).collect();
    for part in list.parts() {
        if matches!(
            part.head(),
            "model" | "fp_text" | "embedded_files" | "zone" | "group" | "dimension" | "net_tie_pad_groups"
        ) {
            notes.leave_out(&format!("{} of a footprint", part.head()));
        }
    }
    Footprint {
        reference: named(list, "Reference", "reference"),
        value: named(list, "Value", "value"),
        face,
        body: body(list, origin, turn, notes).or_else(|| round_pads(&pads, notes)),
        pads,
    }
}

/// `(property "Reference" "J3")`, or the older `(fp_text reference "J3")`.
fn named(list: &Sexpr, property: &str, text: &str) -> String {
    let new = list.all("property").find(|p| p.word(0) == Some(property));
    let old = list.all("fp_text").find(|t| t.word(0) == Some(text));
    new.or(old).and_then(|named| named.word(1)).map(|word| shown(word, WORD)).unwrap_or_default()
}

/// What the fabrication drawing shows; else the courtyard less its clearance.
fn body(list: &Sexpr, origin: Point, turn: f64, notes: &mut ImportNotes) -> Option<Rect> {
    if let Some(drawn) = drawn_on(list, "Fab", origin, turn) {
        notes.take("body from the fabrication drawing");
        return Some(drawn);
    }
    let yard = drawn_on(list, "CrtYd", origin, turn)?;
    notes.take("body from the courtyard, 0.25 mm less all round");
    let inside = |side: f64| (side - 2.0 * COURTYARD).max(0.2);
    Some(Rect { width: inside(yard.width), depth: inside(yard.depth), ..yard })
}

fn drawn_on(list: &Sexpr, layer: &str, origin: Point, turn: f64) -> Option<Rect> {
    let drawn = list.parts().iter().filter(|part| part.head().starts_with("fp_") && part.head() != "fp_text");
    let on = drawn.filter(|part| part.layers().iter().any(|l| l.ends_with(layer)));
    let points = on.flat_map(corners).map(|p| turned(p, turn));
    bounds(points.map(|p| Point { x: p.x + origin.x, y: p.y + origin.y }))
}

/// The places that a drawn thing reaches: of a circle its four ends.
fn corners(part: &Sexpr) -> Vec<Point> {
    let named = |head: &str| part.at(head);
    if part.head() == "fp_circle" {
        let (Some(c), Some(e)) = (named("center"), named("end")) else { return vec![] };
        let r = (e.x - c.x).hypot(e.y - c.y);
        return [(r, 0.0), (-r, 0.0), (0.0, r), (0.0, -r)].map(|(x, y)| Point { x: c.x + x, y: c.y + y }).to_vec();
    }
    if part.head() == "fp_rect" {
        let (Some(a), Some(b)) = (named("start"), named("end")) else { return vec![] };
        return vec![a, b, Point { x: a.x, y: b.y }, Point { x: b.x, y: a.y }];
    }
    let listed = part.find("pts").into_iter().flat_map(|pts| pts.all("xy")).filter_map(Sexpr::place);
    [named("start"), named("mid"), named("end")].into_iter().flatten().chain(listed).collect()
}

fn round_pads(pads: &[Pad], notes: &mut ImportNotes) -> Option<Rect> {
    let ends = |p: &Pad| {
        let (w, d) = (p.size.0 / 2.0, p.size.1 / 2.0);
        [Point { x: p.at.x - w, y: p.at.y - d }, Point { x: p.at.x + w, y: p.at.y + d }]
    };
    let found = bounds(pads.iter().flat_map(ends))?;
    notes.take("body from its pads: nothing else is drawn of it");
    Some(found)
}

/// The rectangle round some places, where it is one.
fn bounds(places: impl Iterator<Item = Point>) -> Option<Rect> {
    Rect::around(places).filter(|found| found.width > 0.0 && found.depth > 0.0)
}
