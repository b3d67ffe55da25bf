//! Board-to-board connector: two rows 0.35 or 0.4 mm apart (D), under a millimetre high.

use super::build::{Body, Made, PinRow, all, anchors, corners, ground_at_ends, pad, row};
use super::kind::{LibraryConnector, Param, Sizes};
use crate::board::ConnectorFamily;
use crate::materials::BodyMaterial;

pub(super) const KIND: LibraryConnector = LibraryConnector {
    key: "board-to-board",
    name: "board-to-board connector",
    known_by: "two fine rows facing each other, pressed together by hand",
    family: ConnectorFamily::BoardToBoard,
    params: &[
        Param::choice("pitch", "pitch", 0.4, &[(0.35, "0.35 mm"), (0.4, "0.4 mm")]),
        Param::count("each", "contacts in each row", 20.0, 4.0..=50.0),
        Param::mm("rows", "rows, middle to middle", 2.6, 1.7..=4.0),
        Param::mm("height", "height", 0.8, 0.5..=1.5),
    ],
    tests: &["it clicks in and lies level", "everything that hangs on the cable works", "no contact leans or is dull"],
    build,
};

fn build(sizes: &Sizes<'_>) -> Made {
    let (pitch, count, apart) = (sizes.get("pitch"), sizes.count("each"), sizes.get("rows"));
    let shape = pad(0.5 * pitch, 0.65);
    let line = |name, y| row(&PinRow { name, count, pitch, at: (0.0, y), shape, hidden: false, role: ground_at_ends });
    let span = pitch * (count - 1) as f64;
    let anchors = anchors(&corners(span + 2.0 * pitch + 1.0, -apart / 2.0, apart / 2.0), pad(0.5, 0.6));
    let (width, height) = (span + 2.4, sizes.get("height"));
    let body = Body { width, depth: apart, height, material: BodyMaterial::Lcp, shell: false, pegs: 0 };
    Made { body, joints: all(vec![line("A", apart / 2.0), line("B", -apart / 2.0), anchors]) }
}
