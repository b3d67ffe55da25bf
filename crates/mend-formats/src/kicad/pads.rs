//! Pads of a footprint.

use mend_core::board::{Point, Role};

use super::notes::ImportNotes;
use super::sexpr::Sexpr;
use super::tree::turned;

/// A pad or hole.
#[derive(Debug, Clone, PartialEq)]
pub struct Pad {
    /// Its number.
    pub name: String,
    /// Where on the board.
    pub at: Point,
    /// Along x and y of the board.
    pub size: (f64, f64),
    /// A hole, and how wide.
    pub drill: Option<f64>,
    /// Has the hole copper in it?
    pub plated: bool,
    /// Copper on the top face, on the bottom face.
    pub faces: (bool, bool),
    /// What its net says it carries.
    pub role: Role,
}

/// Reads a pad. `turn` is its footprint's, degrees; a pad's own angle in a board file has it in it already.
pub(super) fn pad(list: &Sexpr, origin: Point, turn: f64, notes: &mut ImportNotes) -> Option<Pad> {
    let at = list.find("at")?;
    let Some(place) = at.place() else {
        notes.leave_out("pad without a place");
        return None;
    };
    let moved = turned(place, turn);
    let size = list.find("size")?;
    let (width, depth) = (size.number(0)?.abs(), size.number(1).or(size.number(0))?.abs());
    let drill = list.find("drill").and_then(drill);
    let layers = list.layers();
    let on = |face: &str| layers.iter().any(|l| *l == format!("{face}.Cu") || *l == "*.Cu" || *l == "F&B.Cu");
    let net = list.find("net").map_or("", |net| net.word(1).or(net.word(0)).unwrap_or(""));
    Some(Pad {
        name: list.word(0).unwrap_or("").to_owned(),
        at: Point { x: origin.x + moved.x, y: origin.y + moved.y },
        size: seen_from_above(width, depth, at.number(2).unwrap_or(turn), notes),
        drill,
        plated: list.word(1) != Some("np_thru_hole"),
        faces: (on("F"), on("B")),
        role: role_of(net),
    })
}

/// A round hole by its width, a slot by its narrower side: that is what solder has to fill.
fn drill(list: &Sexpr) -> Option<f64> {
    if list.says("oval") {
        let (a, b) = (list.number(1)?, list.number(2).or(list.number(1))?);
        return Some(a.abs().min(b.abs()));
    }
    list.number(0).map(f64::abs)
}

/// The rectangle round a turned pad.
fn seen_from_above(width: f64, depth: f64, degrees: f64, notes: &mut ImportNotes) -> (f64, f64) {
    let (sin, cos) = degrees.to_radians().sin_cos();
    let (sin, cos) = (sin.abs(), cos.abs());
    if sin > 1e-3 && cos > 1e-3 {
        notes.take("pad at an odd angle: taken as the rectangle round it");
    }
    (width * cos + depth * sin, width * sin + depth * cos)
}

/// What nets are usually called.
fn role_of(net: &str) -> Role {
    let name = net.rsplit('/').next().unwrap_or(net).to_ascii_uppercase();
    let ground = ["GND", "VSS", "EARTH", "CHASSIS", "SHIELD"].iter().any(|g| name.contains(g));
    let power = name.starts_with('+')
        || ["VCC", "VDD", "VBUS", "VIN", "VBAT", "PWR", "VSYS"].iter().any(|p| name.starts_with(p));
    match (ground, power) {
        (true, _) => Role::Ground,
        (_, true) => Role::Power,
        _ => Role::Signal,
    }
}

#[cfg(test)]
mod tests {
    use super::super::sexpr::read;
    use super::*;

    fn of(text: &str, turn: f64) -> Option<Pad> {
        pad(&read(text.as_bytes()).expect("sound"), Point { x: 10.0, y: 20.0 }, turn, &mut ImportNotes::default())
    }

    #[test]
    fn a_pad_turns_with_its_footprint_and_y_runs_away_from_the_reader() {
        // At (1, 2) downwards in the file; a quarter to the left brings (1, -2) to (2, 1).
        let turned = of(r#"(pad "1" smd rect (at 1 2 90) (size 3 0.5) (layers "F.Cu"))"#, 90.0).expect("a pad");
        assert!((turned.at.x - 12.0).abs() < 1e-9 && (turned.at.y - 21.0).abs() < 1e-9, "{:?}", turned.at);
        assert!((turned.size.0 - 0.5).abs() < 1e-9 && (turned.size.1 - 3.0).abs() < 1e-9, "{:?}", turned.size);
    }

    #[test]
    fn a_slot_is_as_wide_as_its_narrow_side_and_layers_say_the_faces() {
        let slot = r#"(pad "SH" thru_hole oval (at 0 0) (size 1.2 1.9) (drill oval 0.7 1.4) (layers "*.Cu"))"#;
        let slot = of(slot, 0.0).expect("a pad");
        assert_eq!((slot.drill, slot.plated, slot.faces), (Some(0.7), true, (true, true)));
        let peg = r#"(pad "" np_thru_hole circle (at 0 0) (size 1) (drill 1) (layers "B.Cu"))"#;
        let peg = of(peg, 0.0).expect("a hole");
        assert_eq!((peg.drill, peg.plated, peg.faces), (Some(1.0), false, (false, true)));
        assert!(of(r#"(pad "2" smd rect (at nan 0) (size 1 1))"#, 0.0).is_none());
    }

    #[test]
    fn a_net_says_what_a_pin_carries() {
        let role = |net: &str| role_of(net);
        assert_eq!([role("GND"), role("/power/AGND"), role("CHASSIS")], [Role::Ground; 3]);
        assert_eq!([role("+3V3"), role("VBUS_IN"), role("/usb/VCC")], [Role::Power; 3]);
        assert_eq!([role("D+"), role(""), role("RVDD_SENSE")], [Role::Signal; 3]);
    }
}
