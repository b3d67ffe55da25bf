//! 3.5 mm audio jack: contacts along both sides, plastic pegs below.

use super::build::{Body, Made, hole, pad};
use super::kind::{LibraryConnector, Param, Sizes};
use crate::board::{ConnectorFamily, Joint, Point, Role};
use crate::materials::BodyMaterial;

pub(super) const KIND: LibraryConnector = LibraryConnector {
    key: "audio-jack",
    name: "3.5 mm audio jack",
    known_by: "a long barrel, contacts left and right of it",
    family: ConnectorFamily::Jack,
    params: &[
        Param::choice("contacts", "contacts", 5.0, &[(3.0, "3"), (4.0, "4"), (5.0, "5"), (6.0, "6, switched")]),
        Param::choice("mount", "mount", 1.0, &[(1.0, "on pads"), (2.0, "through holes")]),
        Param::mm("across", "contacts, left to right", 7.4, 5.5..=10.0),
        Param::mm("depth", "body depth", 12.5, 10.0..=16.0),
        Param::mm("height", "height", 4.5, 3.0..=7.0),
        Param::count("pegs", "pegs", 2.0, 0.0..=3.0),
    ],
    tests: &["sound left and right", "microphone", "insertion is noticed", "no crackle while the plug is turned"],
    build,
};

fn build(sizes: &Sizes<'_>) -> Made {
    let (x, depth) = (sizes.get("across") / 2.0, sizes.get("depth"));
    let shape = if sizes.count("mount") == 1 { pad(1.6, 1.4) } else { hole(1.0, 1.7) };
    let contacts = sizes.count("contacts");
    let contact = |k: usize| {
        let side = if k.is_multiple_of(2) { -x } else { x };
        let y = (k / 2) as f64 * (depth - 4.0) / 2.0 - depth / 2.0 + 2.0;
        Joint {
            name: format!("{}", k + 1),
            row: if k.is_multiple_of(2) { "left" } else { "right" }.to_owned(),
            at: Point { x: side, y },
            role: if k == 0 { Role::Ground } else { Role::Signal },
            shape,
            hidden: false,
        }
    };
    let (height, pegs) = (sizes.get("height"), sizes.count("pegs") as u32);
    let body = Body { width: 6.0, depth, height, material: BodyMaterial::Pa9t, shell: false, pegs };
    Made { body, joints: (0..contacts).map(contact).collect() }
}
