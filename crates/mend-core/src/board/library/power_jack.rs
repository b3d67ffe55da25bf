//! DC jack: three to five stout anchors in wide holes, often the heaviest copper of the board.

use super::build::{Body, Made, hole};
use super::kind::{LibraryConnector, Param, Sizes};
use crate::board::{ConnectorFamily, Joint, Point, Role};
use crate::materials::BodyMaterial;

pub(super) const KIND: LibraryConnector = LibraryConnector {
    key: "power-jack",
    name: "DC power jack",
    known_by: "three to five stout anchors, a round or square mouth",
    family: ConnectorFamily::Power,
    params: &[
        Param::choice("anchors", "anchors", 4.0, &[(3.0, "3"), (4.0, "4"), (5.0, "5")]),
        Param::mm("across", "anchors, left to right", 7.0, 4.5..=10.0),
        Param::mm("along", "anchors, front to back", 5.0, 4.0..=8.0),
        Param::mm("drill", "leg hole", 1.5, 0.9..=2.4),
        Param::mm("width", "body width", 9.0, 5.0..=14.0),
        Param::mm("depth", "body depth", 12.0, 8.0..=18.0),
        Param::mm("height", "height", 7.0, 3.5..=12.0),
    ],
    tests: &["charges at full power", "runs without the battery", "no warming at the plug", "the plug does not rock"],
    build,
};

/// Centre contact and switch at the back, sleeve and anchors at the sides.
fn build(sizes: &Sizes<'_>) -> Made {
    let (x, along, depth) = (sizes.get("across") / 2.0, sizes.get("along"), sizes.get("depth"));
    let (back, drill) = (depth / 2.0 - 1.5, sizes.get("drill"));
    let places: &[(f64, f64, Role)] = match sizes.count("anchors") {
        3 => &[(0.0, back, Role::Power), (-x, back - along, Role::Ground), (x, back - along, Role::Ground)],
        4 => &[
            (-x, back, Role::Power),
            (x, back, Role::Power),
            (-x, back - along, Role::Ground),
            (x, back - along, Role::Ground),
        ],
        _ => &[
            (0.0, back + drill.max(1.0), Role::Signal),
            (-x, back, Role::Power),
            (x, back, Role::Power),
            (-x, back - along, Role::Ground),
            (x, back - along, Role::Ground),
        ],
    };
    let leg = |(k, (x, y, role)): (usize, &(f64, f64, Role))| Joint {
        name: format!("leg {}", k + 1),
        row: "anchors".to_owned(),
        at: Point { x: *x, y: *y },
        role: *role,
        shape: hole(drill, drill + 0.9),
        hidden: false,
    };
    let joints = places.iter().enumerate().map(leg).collect();
    let (width, height) = (sizes.get("width"), sizes.get("height"));
    Made { body: Body { width, depth, height, material: BodyMaterial::Pbt, shell: false, pegs: 0 }, joints }
}
