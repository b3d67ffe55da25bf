//! Network jack: eight contacts in two staggered rows 1.27 mm apart (D: 1.02 in some), two shell anchors, two snap-in pegs.

use super::build::{Body, Made, PinRow, all, anchors, hole, hole_in, row, signals};
use super::kind::{LibraryConnector, Param, Sizes};
use crate::board::ConnectorFamily;
use crate::materials::BodyMaterial;

pub(super) const KIND: LibraryConnector = LibraryConnector {
    key: "network-jack",
    name: "network jack",
    known_by: "eight contacts in two staggered rows, two snap-in pegs",
    family: ConnectorFamily::Jack,
    params: &[
        Param::choice("inside", "inside", 1.0, &[(1.0, "contacts only"), (2.0, "with transformers")]),
        Param::choice("lamps", "lamps", 0.0, &[(0.0, "none"), (2.0, "two")]),
        Param::mm("pitch", "contacts, next to next", 1.27, 1.0..=1.4),
        Param::mm("across", "anchors, left to right", 15.5, 14.0..=18.0),
        Param::mm("drill", "pin hole", 0.9, 0.6..=1.0),
    ],
    tests: &["link at full speed", "a large file without errors", "both lamps, where it has them", "the plug latches"],
    build,
};

fn build(sizes: &Sizes<'_>) -> Made {
    let (pitch, drill) = (sizes.get("pitch"), sizes.get("drill"));
    let line = |name, (count, pitch), at| {
        let shape = hole_in(drill, pitch);
        row(&PinRow { name, count, pitch, at, shape, hidden: false, role: signals })
    };
    let mut joints = vec![
        line("A", (4, 2.0 * pitch), (-pitch / 2.0, 2.5)),
        line("B", (4, 2.0 * pitch), (pitch / 2.0, 5.04)),
        anchors(&[(-sizes.get("across") / 2.0, -3.0), (sizes.get("across") / 2.0, -3.0)], hole(1.6, 2.4)),
    ];
    if sizes.count("lamps") == 2 {
        joints.push(line("left lamp ", (2, 1.9), (-5.6, 8.0)));
        joints.push(line("right lamp ", (2, 1.9), (5.6, 8.0)));
    }
    let depth = if sizes.count("inside") == 2 { 24.0 } else { 18.0 };
    let body = Body { width: 16.0, depth, height: 13.5, material: BodyMaterial::Pa66, shell: true, pegs: 2 };
    Made { body, joints: all(joints) }
}
