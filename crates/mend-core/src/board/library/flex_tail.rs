//! Soldered flex tail: the end of a flexible circuit laid flat on the board, its fingers soldered to pads through plated holes in
//! them, glued beside the pads and aligned by two marks. Pitches of 0.6-2 mm (E: what a hand can solder).

use super::build::{Body, Made, PinRow, all, ground_at_ends, pad, row};
use super::kind::{LibraryConnector, Param, Sizes};
use crate::board::ConnectorFamily;
use crate::materials::BodyMaterial;

const PITCHES: &[(f64, &str)] =
    &[(0.6, "0.6 mm"), (0.8, "0.8 mm"), (1.0, "1.0 mm"), (1.27, "1.27 mm"), (2.0, "2.0 mm")];

pub(super) const KIND: LibraryConnector = LibraryConnector {
    key: "flex-tail",
    name: "soldered flex tail",
    known_by: "a flexible circuit soldered flat on the board, with a hole in each finger",
    family: ConnectorFamily::FlexTail,
    params: &[
        Param::choice("pitch", "pitch", 1.0, PITCHES),
        Param::count("ways", "fingers", 8.0, 2.0..=40.0),
        Param::mm("finger", "length of a finger", 2.0, 1.0..=5.0),
        Param::mm("tail", "glued length behind the fingers", 4.0, 0.0..=20.0),
        Param::mm("thickness", "thickness of the tail", 0.15, 0.1..=0.5),
    ],
    tests: &[
        "every finger shows solder through its hole",
        "the tail lies flat on its marks",
        "everything on the circuit works, and still does while it is moved",
    ],
    build,
};

fn build(sizes: &Sizes<'_>) -> Made {
    let (pitch, count, finger) = (sizes.get("pitch"), sizes.count("ways"), sizes.get("finger"));
    let depth = finger + sizes.get("tail");
    let shape = pad(0.6 * pitch, finger);
    // The fingers lie at the tail's end; a tip gets to them from above, through their holes.
    let at = (0.0, (depth - finger) / 2.0);
    let pins = PinRow { name: "", count, pitch, at, shape, hidden: false, role: ground_at_ends };
    let (width, height) = (pitch * count as f64 + 1.0, sizes.get("thickness"));
    let body = Body { width, depth, height, material: BodyMaterial::FlexFilm, shell: false, pegs: 0 };
    Made { body, joints: all(vec![row(&pins)]) }
}
