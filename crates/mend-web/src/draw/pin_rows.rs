//! The connector's pins in their rows, as they are seen under the microscope: the row nearest the technician below.

use askama::Template;
use mend_core::board::{Connector, Joint, row_names};
use mend_core::inspection::PinMark;

use super::n;

const WIDTH: f64 = 1180.0;
/// From row to row, and what a line below the pins' names takes besides.
const ROW_GAP: f64 = 150.0;
const BELOW: f64 = 22.0;

/// A pin on paper.
pub(crate) struct Pin {
    pub(crate) name: String,
    pub(crate) class: &'static str,
    pub(crate) glyph: String,
    pub(crate) small: bool,
    pub(crate) says: String,
    pub(crate) x: String,
    pub(crate) y: String,
    pub(crate) width: String,
    pub(crate) height: String,
    pub(crate) label_x: String,
    pub(crate) label_y: String,
    pub(crate) glyph_y: String,
    /// A line below its name; empty: nothing.
    pub(crate) below: String,
    pub(crate) below_y: String,
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

/// What a pin shows.
#[derive(Clone)]
pub(crate) struct PinFace {
    pub(crate) class: &'static str,
    /// A sign or a figure on it.
    pub(crate) glyph: String,
    /// The same in words.
    pub(crate) says: String,
    /// What is held beside it, below its name; empty: nothing.
    pub(crate) below: String,
}

impl PinFace {
    /// Under the nudge.
    pub(crate) fn walked(mark: Option<PinMark>) -> Self {
        let glyph = match mark {
            None => "",
            Some(PinMark::Firm) => "✓",
            Some(PinMark::Moves) => "↔",
            Some(PinMark::Bridged) => "∞",
            Some(PinMark::Starved) => "○",
            Some(PinMark::Missing) => "✕",
        };
        let class = mark.map_or("unwalked", PinMark::name);
        Self::new(class, glyph, class)
    }

    /// With nothing beside it.
    pub(crate) fn new(class: &'static str, glyph: impl Into<String>, says: impl Into<String>) -> Self {
        Self { class, glyph: glyph.into(), says: says.into(), below: String::new() }
    }
}

/// Draws the rows, pins alone or all joints; `chosen` is the one in focus.
pub(crate) fn pin_rows(connector: &Connector, face: &dyn Fn(&Joint) -> PinFace, all: bool, chosen: &str) -> PinRows {
    let joints: Vec<_> = connector.joints.iter().filter(|j| all || j.is_pin()).collect();
    let mut names = row_names(&connector.joints);
    names.retain(|row| joints.iter().any(|j| j.row == *row));
    // The farthest row on top.
    let depth = |row: &str| joints.iter().filter(|j| j.row == row).map(|j| j.at.y).fold(f64::MIN, f64::max);
    names.sort_by(|a, b| depth(b).total_cmp(&depth(a)));
    let faced: Vec<(&Joint, PinFace)> = joints.iter().map(|joint| (*joint, face(joint))).collect();
    let gap = ROW_GAP + if faced.iter().any(|(_, face)| !face.below.is_empty()) { BELOW } else { 0.0 };
    let mut pins = Vec::new();
    for (r, row) in names.iter().enumerate() {
        let mut of_row: Vec<_> = faced.iter().filter(|(joint, _)| joint.row == *row).collect();
        of_row.sort_by(|(a, _), (b, _)| a.at.x.total_cmp(&b.at.x));
        let pitch = (WIDTH / of_row.len() as f64).min(96.0);
        let left = (WIDTH - pitch * of_row.len() as f64) / 2.0;
        let y = 34.0 + gap * r as f64;
        for (c, (joint, face)) in of_row.into_iter().enumerate() {
            let PinFace { class, glyph, says, below } = face.clone();
            let x = left + pitch * c as f64;
            pins.push(Pin {
                name: joint.name.clone(),
                class,
                small: glyph.starts_with(|c: char| c.is_ascii_alphanumeric()),
                glyph,
                says,
                x: n(x + pitch * 0.12),
                y: n(y),
                width: n(pitch * 0.76),
                height: n(78.0),
                label_x: n(x + pitch / 2.0),
                label_y: n(y + 104.0),
                glyph_y: n(y + 40.0),
                below,
                below_y: n(y + 126.0),
                hidden: joint.hidden,
                row: r,
                column: c,
            });
        }
    }
    let rows = names.iter().enumerate();
    let rows = rows.map(|(r, name)| RowName { name: (*name).to_owned(), y: n(20.0 + gap * r as f64) }).collect();
    // Where nobody has chosen, it goes on with the first in the picture that nothing is known of: the order of the joints once began
    // in the middle of a row, and a walk to the right left the first pin out.
    let left = pins.iter().find(|pin: &&Pin| pin.class == "unwalked").map(|pin| pin.name.clone());
    let chosen = if chosen.is_empty() { left.unwrap_or_default() } else { chosen.to_owned() };
    PinRows { height: n(gap * names.len() as f64), rows, pins, chosen }
}

#[cfg(test)]
mod tests {
    use mend_core::example::Bench;

    use super::*;

    #[test]
    fn a_walk_begins_at_the_first_of_the_picture_that_is_left_whatever_order_the_joints_have() {
        let mut connector = Bench::try_new().expect("the example").board.connector;
        connector.joints.reverse();
        let none = |_: &Joint| PinFace::walked(None);
        let drawn = pin_rows(&connector, &none, false, "");
        assert_eq!(drawn.chosen, drawn.pins[0].name);
        let first = drawn.pins[0].name.clone();
        let one = |joint: &Joint| PinFace::walked((joint.name == first).then_some(PinMark::Firm));
        assert_eq!(pin_rows(&connector, &one, false, "").chosen, drawn.pins[1].name);
        assert_eq!(pin_rows(&connector, &none, false, &first).chosen, first);
    }
}
