//! A footprint as the connector that is to be replaced.

use mend_core::board::{Connector, ConnectorFamily, Joint, JointShape, Point, Rect, Role};
use mend_core::finding::Finding;
use mend_core::materials::BodyMaterial;
use mend_core::units::Length;

use super::RULE;
use super::footprint::Footprint;
use super::notes::ImportNotes;
use super::pads::Pad;
use crate::board::tidy;

/// Height where nothing says it, mm (E); it is asked for.
const USUAL_HEIGHT_MM: f64 = 3.0;
/// More pads than any connector has.
const MOST_PADS: usize = 600;
/// Rows closer than this are one, mm.
const ROW: f64 = 0.3;

/// The connector of a footprint where it stands, with what was taken for what.
pub fn connector(footprint: &Footprint, notes: &mut ImportNotes) -> Result<Connector, Vec<Finding>> {
    let no_body =
        || vec![Finding::written(RULE, "body", "nothing is drawn of it").hint("choose a footprint with pads")];
    let body = footprint.body.ok_or_else(no_body)?;
    if footprint.pads.len() > MOST_PADS {
        let object = Finding::written(RULE, &footprint.reference, format!("has {} pads", footprint.pads.len()));
        return Err(vec![object.hint("a connector has up to 600: choose the part that is replaced")]);
    }
    let (joints, pegs) = joints(footprint, &body, notes);
    if joints.is_empty() {
        let object = Finding::written("joint_without_pad", &footprint.reference, "has no pad with copper");
        return Err(vec![object.hint("choose the footprint of the part that is replaced")]);
    }
    notes.take("height not in the file: 3 mm taken, measure it");
    notes.take("plastic not in the file: PA66 taken, the weakest that is usual");
    let name = if footprint.value.is_empty() { &footprint.reference } else { &footprint.value };
    Ok(Connector {
        name: if name.is_empty() { "connector".to_owned() } else { name.clone() },
        family: ConnectorFamily::Port,
        face: footprint.face,
        body,
        height: Length::mm(USUAL_HEIGHT_MM),
        material: BodyMaterial::Pa66,
        shell: joints.iter().any(|j| j.role == Role::Anchor),
        pegs,
        joints,
        tests: Vec::new(),
    })
}

fn joints(footprint: &Footprint, body: &Rect, notes: &mut ImportNotes) -> (Vec<Joint>, u32) {
    let mut joints: Vec<Joint> = Vec::new();
    let mut pegs = 0;
    for pad in &footprint.pads {
        if !pad.plated {
            pegs += 1;
            notes.take("hole without copper: taken as a peg");
            continue;
        }
        if !(pad.faces.0 || pad.faces.1) {
            notes.leave_out("pad without copper");
            continue;
        }
        if pad.drill.is_none() && wrong_face(footprint, pad) {
            notes.leave_out("pad on the other face than its footprint");
            continue;
        }
        joints.push(joint(pad, body, joints.len(), notes));
    }
    name_apart(&mut joints);
    rows(&mut joints);
    (joints, pegs)
}

fn wrong_face(footprint: &Footprint, pad: &Pad) -> bool {
    match footprint.face {
        mend_core::board::Face::Top => !pad.faces.0,
        mend_core::board::Face::Bottom => !pad.faces.1,
    }
}

fn joint(pad: &Pad, body: &Rect, count: usize, notes: &mut ImportNotes) -> Joint {
    let (width, depth) = (tidy(pad.size.0), tidy(pad.size.1));
    let shape = match pad.drill {
        Some(drill) => JointShape::Hole { drill, pad: width.min(depth) },
        None => JointShape::Pad { width, depth },
    };
    let land = Rect { centre: pad.at, width, depth };
    let hidden = pad.drill.is_none() && body.shared(&land) > 0.98 * land.area();
    if hidden {
        notes.take("pad wholly under the body: taken as hidden");
    }
    let anchor = is_anchor(pad);
    if anchor {
        notes.take("pad named as a shell or without a number: taken as an anchor");
    }
    let name = if pad.name.is_empty() { format!("leg {}", count + 1) } else { pad.name.clone() };
    let role = if anchor { Role::Anchor } else { pad.role };
    Joint { name, row: String::new(), at: pad.at, role, shape, hidden }
}

/// `SH`, `S1`, `MP`, or no number at all.
fn is_anchor(pad: &Pad) -> bool {
    let name = pad.name.to_ascii_uppercase();
    let shell = ["SH", "MP", "SHIELD", "G"].contains(&name.trim_end_matches(|c: char| c.is_ascii_digit()));
    name.is_empty() || shell || (name.starts_with('S') && name[1..].chars().all(|c| c.is_ascii_digit()))
}

/// A number that is there twice gets a letter.
fn name_apart(joints: &mut [Joint]) {
    for k in 0..joints.len() {
        let same = joints[..k]
            .iter()
            .filter(|j| j.name == joints[k].name || j.name.starts_with(&format!("{} ", joints[k].name)))
            .count();
        if same > 0 {
            joints[k].name = format!("{} {}", joints[k].name, same + 1);
        }
    }
}

/// Rows along the direction in which there are fewer of them.
fn rows(joints: &mut [Joint]) {
    let lines = |of: fn(Point) -> f64| {
        let mut places: Vec<f64> = joints.iter().filter(|j| j.role != Role::Anchor).map(|j| of(j.at)).collect();
        places.sort_by(f64::total_cmp);
        places.dedup_by(|a, b| (*a - *b).abs() < ROW);
        places
    };
    let (along_x, along_y) = (lines(|p| p.y), lines(|p| p.x));
    let upright = along_y.len() < along_x.len();
    let lines = if upright { along_y } else { along_x };
    for joint in joints {
        let place = if upright { joint.at.x } else { joint.at.y };
        let row = lines.iter().rev().position(|line| (line - place).abs() < ROW);
        joint.row = match row {
            _ if joint.role == Role::Anchor => "legs".to_owned(),
            Some(k) => format!("row {}", letter(k)),
            None => "row A".to_owned(),
        };
    }
}

fn letter(k: usize) -> String {
    u8::try_from(k).ok().filter(|k| *k < 26).map_or(format!("{}", k + 1), |k| char::from(b'A' + k).to_string())
}

#[cfg(test)]
mod tests {
    use super::*;
    use mend_core::board::Face;

    fn footprint(face: Face, pads: &[(&str, f64, f64)]) -> Footprint {
        let pad = |(name, x, y): &(&str, f64, f64)| Pad {
            name: (*name).to_owned(),
            at: Point { x: *x, y: *y },
            size: (0.4, 1.0),
            drill: None,
            plated: true,
            faces: (true, false),
            role: Role::Signal,
        };
        let body = Some(Rect { centre: Point { x: 0.0, y: 0.0 }, width: 6.0, depth: 4.0 });
        let pads = pads.iter().map(pad).collect();
        Footprint { reference: "J1".to_owned(), value: String::new(), face, pads, body }
    }

    fn made(pads: &[(&str, f64, f64)]) -> Vec<(String, String)> {
        let part = connector(&footprint(Face::Top, pads), &mut ImportNotes::default()).expect("a part");
        part.joints.into_iter().map(|j| (j.name, j.row)).collect()
    }

    fn pair(name: &str, row: &str) -> (String, String) {
        (name.to_owned(), row.to_owned())
    }

    #[test]
    fn rows_are_read_along_the_longer_way_and_shells_are_legs() {
        let level = made(&[("1", -1.0, 2.0), ("2", 0.0, 2.0), ("3", 1.0, 2.0), ("4", 0.0, 0.6), ("SH", 3.0, 0.0)]);
        assert_eq!(level[0], pair("1", "row A"), "the far row comes first");
        assert_eq!((level[3].1.as_str(), level[4].1.as_str()), ("row B", "legs"));
        let upright = made(&[("1", -2.0, -1.0), ("2", -2.0, 0.0), ("3", -2.0, 1.0)]);
        assert!(upright.iter().all(|(_, row)| row == "row A"), "{upright:?}");
    }

    #[test]
    fn a_number_that_is_there_twice_is_told_apart() {
        let names: Vec<String> = made(&[("1", -1.0, 2.0), ("1", 0.0, 2.0), ("1", 1.0, 2.0), ("2", 2.0, 2.0)])
            .into_iter()
            .map(|j| j.0)
            .collect();
        assert_eq!(names, ["1", "1 2", "1 3", "2"]);
    }

    #[test]
    fn pads_on_the_other_face_are_left_out_and_said() {
        let mut notes = ImportNotes::default();
        let refused = connector(&footprint(Face::Bottom, &[("1", 0.0, 2.0)]), &mut notes).expect_err("nothing is left");
        assert_eq!(refused[0].rule, "joint_without_pad");
        assert_eq!(notes.left_out["pad on the other face than its footprint"], 1);
    }
}
