//! The connector's pins in their rows, as they are seen under the microscope: the row nearest the technician below.

use askama::Template;
use mend_core::board::{Connector, row_names};
use mend_core::inspection::{PinMark, Walked};

use super::n;

const WIDTH: f64 = 1180.0;
const ROW_GAP: f64 = 150.0;

/// A pin on paper.
pub(crate) struct Pin {
    pub(crate) name: String,
    pub(crate) mark: &'static str,
    pub(crate) glyph: &'static str,
    pub(crate) x: String,
    pub(crate) y: String,
    pub(crate) width: String,
    pub(crate) height: String,
    pub(crate) label_x: String,
    pub(crate) label_y: String,
    pub(crate) glyph_y: String,
    pub(crate) hidden: bool,
    pub(crate) row: usize,
    pub(crate) column: usize,
}

/// A row's name on paper.
pub(crate) struct RowName {
    pub(crate) name: String,
    pub(crate) y: String,
}

/// The picture.
#[derive(Template)]
#[template(path = "draw/pin_rows.svg", escape = "html")]
pub(crate) struct PinRows {
    pub(crate) height: String,
    pub(crate) rows: Vec<RowName>,
    pub(crate) pins: Vec<Pin>,
    pub(crate) chosen: String,
}

fn glyph(mark: Option<PinMark>) -> &'static str {
    match mark {
        None => "",
        Some(PinMark::Firm) => "✓",
        Some(PinMark::Moves) => "↔",
        Some(PinMark::Bridged) => "∞",
        Some(PinMark::Starved) => "○",
        Some(PinMark::Missing) => "✕",
    }
}

/// Draws the rows; `chosen` is the pin in focus.
pub(crate) fn pin_rows(connector: &Connector, walked: &[Walked], chosen: &str) -> PinRows {
    let joints: Vec<_> = connector.joints.iter().filter(|j| j.is_pin()).collect();
    let mut names = row_names(&connector.joints);
    names.retain(|row| joints.iter().any(|j| j.row == *row));
    // The farthest row on top.
    let depth = |row: &str| joints.iter().filter(|j| j.row == row).map(|j| j.at.y).fold(f64::MIN, f64::max);
    names.sort_by(|a, b| depth(b).total_cmp(&depth(a)));
    let mut pins = Vec::new();
    for (r, row) in names.iter().enumerate() {
        let mut of_row: Vec<_> = joints.iter().filter(|j| j.row == *row).collect();
        of_row.sort_by(|a, b| a.at.x.total_cmp(&b.at.x));
        let pitch = (WIDTH / of_row.len() as f64).min(96.0);
        let left = (WIDTH - pitch * of_row.len() as f64) / 2.0;
        let y = 34.0 + ROW_GAP * r as f64;
        for (c, joint) in of_row.iter().enumerate() {
            let mark = walked.iter().find(|w| w.name == joint.name).and_then(|w| w.mark);
            let x = left + pitch * c as f64;
            pins.push(Pin {
                name: joint.name.clone(),
                mark: mark.map_or("unwalked", PinMark::name),
                glyph: glyph(mark),
                x: n(x + pitch * 0.12),
                y: n(y),
                width: n(pitch * 0.76),
                height: n(78.0),
                label_x: n(x + pitch / 2.0),
                label_y: n(y + 104.0),
                glyph_y: n(y + 40.0),
                hidden: joint.hidden,
                row: r,
                column: c,
            });
        }
    }
    let rows = names.iter().enumerate();
    let rows = rows.map(|(r, name)| RowName { name: (*name).to_owned(), y: n(20.0 + ROW_GAP * r as f64) }).collect();
    PinRows { height: n(ROW_GAP * names.len() as f64), rows, pins, chosen: chosen.to_owned() }
}
