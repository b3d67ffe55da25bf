//! What a technician reaches for first: the usual soak, preheater, iron and shields. What is proposed and what a button adds is
//! the same.

use crate::board::{Board, Component, Rect};
use crate::heat::bridge::Bridge;
use crate::heat::covered_joint::covered_joints;
use crate::heat::iron::{Iron, USUAL_DWELL};
use crate::heat::motion::Motion;
use crate::heat::preheater::{Coupling, Preheater};
use crate::heat::recipe::{HeatingAids, HeatingStage};
use crate::heat::shield::{Shield, ShieldKind};
use crate::heat::station::Station;
use crate::heat::tool::HotAir;
use crate::units::{Duration, Flow, Length, Temperature};

/// From below, mm (E, common practice with a bare nozzle).
pub const FROM_BELOW_MM: f64 = 25.0;
/// A soak is no hotter than this, °C (E).
const SOAK_C: f64 = 350.0;
/// A shield reaches this far beyond what it covers, mm (E).
const OVERLAP_MM: f64 = 1.5;

/// Shields as they are usually laid (E).
pub const TAPE: ShieldKind = ShieldKind::Polyimide { layers: 3 };
/// See [`TAPE`].
pub const TENT: ShieldKind = ShieldKind::FoilTent { gap_mm: 2.0 };
/// See [`TAPE`].
pub const BLOCK: ShieldKind = ShieldKind::MetalBlock { height_mm: 5.0 };

/// Shields as they are written, as people call them, and as they are usually laid.
pub const SHIELDS: [(&str, &str, ShieldKind); 4] = [
    ("polyimide", "Tape", TAPE),
    ("foil-tent", "Foil tent", TENT),
    ("aluminium-tape", "Alu tape", ShieldKind::AluminiumTape),
    ("metal-block", "Block", BLOCK),
];

/// What holds a board down, written and called likewise; no method searches them.
pub const HOLDERS: [(&str, &str, ShieldKind); 2] =
    [("holder-jaw", "Holder", ShieldKind::HolderJaw), ("finger", "Finger", ShieldKind::Finger)];

/// A shield by how it is written.
///
/// ```
/// use mend_core::method::usual::{TAPE, shield_kind};
/// assert_eq!(shield_kind("polyimide"), Some(TAPE));
/// assert_eq!(shield_kind("umbrella"), None);
/// ```
pub fn shield_kind(key: &str) -> Option<ShieldKind> {
    SHIELDS.iter().chain(&HOLDERS).find(|(known, _, _)| *known == key).map(|(_, _, kind)| *kind)
}

/// The widest nozzle at hand: the station's, or the one in use.
pub(crate) fn widest_nozzle(station: &Station, air: &HotAir) -> Length {
    let owned = station.widest_nozzle();
    if air.nozzle > owned { air.nozzle } else { owned }
}

/// The bare nozzle from below for 45 s at four fifths of the flow, before this air and moved as it is.
///
/// ```
/// use mend_core::example::Bench;
/// let bench = Bench::try_new().expect("the example");
/// use mend_core::method::usual::soak;
/// let stage = soak(&bench.board, &bench.station, &bench.recipe.air.expect("hot air"));
/// assert_eq!((stage.lasts.in_seconds(), stage.air.expect("air").face), (45.0, bench.board.hanging()));
/// ```
pub fn soak(board: &Board, station: &Station, air: &HotAir) -> HeatingStage {
    let (strong, coolest) = (station.flow_range.1.in_litres_per_minute(), station.set_range.0.in_celsius());
    let below = HotAir {
        set: Temperature::celsius(air.set.in_celsius().min(SOAK_C).max(coolest)),
        flow: Flow::litres_per_minute((strong * 0.8).round()),
        nozzle: widest_nozzle(station, air),
        distance: Length::mm(FROM_BELOW_MM),
        face: board.hanging(),
        motion: air.motion,
        aim: [0.0, 0.0],
        approach: None,
        tilt: None,
    };
    let (lasts, change) = (Duration::seconds(45.0), Duration::seconds(5.0));
    HeatingStage { air: Some(below), during: HeatingAids::default(), lasts, change }
}

/// Air before anybody has set anything: a bare nozzle from the far face, in the upper half of what the station gives (E).
///
/// ```
/// use mend_core::example::Bench;
/// let bench = Bench::try_new().expect("the example");
/// use mend_core::method::usual::air;
/// let usual = air(&bench.board, &bench.station);
/// assert_eq!((usual.face, usual.nozzle.in_mm()), (bench.board.hanging(), 22.0));
/// ```
pub fn air(board: &Board, station: &Station) -> HotAir {
    let part = |(low, high): (f64, f64), share: f64| ((low + (high - low) * share) / 5.0).round() * 5.0;
    let set = part((station.set_range.0.in_celsius(), station.set_range.1.in_celsius()), 0.8);
    let flow = part((station.flow_range.0.in_litres_per_minute(), station.flow_range.1.in_litres_per_minute()), 0.7);
    HotAir {
        set: Temperature::celsius(set),
        flow: Flow::litres_per_minute(flow),
        nozzle: station.widest_nozzle(),
        distance: Length::mm(FROM_BELOW_MM),
        face: board.hanging(),
        motion: Motion::Still,
        aim: [0.0, 0.0],
        approach: None,
        tilt: None,
    }
}

/// A tinned copper wire laid along all joints (E, common practice).
pub const WIRE: Bridge = Bridge { wire_mm: 1.0, bead_mm2: 2.0 };

/// A preheater below, across an air gap.
///
/// ```
/// use mend_core::example::Bench;
/// let bench = Bench::try_new().expect("the example");
/// use mend_core::method::usual::preheater;
/// assert_eq!(preheater(&bench.board).face, bench.board.hanging());
/// ```
pub fn preheater(board: &Board) -> Preheater {
    let (set, side) = (Temperature::celsius(180.0), Length::mm(120.0));
    Preheater { set, coupling: Coupling::Gap, face: board.hanging(), side }
}

/// Two minutes with what helps and no air.
///
/// ```
/// use mend_core::heat::recipe::HeatingAids;
/// use mend_core::method::usual::warm;
/// assert_eq!(warm(HeatingAids::default()).lasts.in_seconds(), 120.0);
/// ```
pub fn warm(during: HeatingAids) -> HeatingStage {
    HeatingStage { air: None, during, lasts: Duration::seconds(120.0), change: Duration::default() }
}

/// A stout tip on the anchors, where there are any.
///
/// ```
/// use mend_core::example::Bench;
/// let bench = Bench::try_new().expect("the example");
/// use mend_core::method::usual::iron;
/// assert_eq!(iron(&bench.board).row, "anchors");
/// ```
pub fn iron(board: &Board) -> Iron {
    let joints = &board.connector.joints;
    let row = joints.iter().find(|j| !j.is_pin()).or(joints.first()).map(|j| j.row.clone()).unwrap_or_default();
    Iron { set: Temperature::celsius(380.0), tip: Length::mm(4.0), row, dwell: USUAL_DWELL }
}

/// A shield of a kind over a component with a little overlap, drawn back to its body where that would cover a joint of the
/// part; none where even that does.
///
/// ```
/// use mend_core::example::Bench;
/// let bench = Bench::try_new().expect("the example");
/// use mend_core::method::usual::{TAPE, shield_over};
/// let latch = &bench.board.components[0];
/// let shield = shield_over(&bench.board, latch, TAPE).expect("it stands clear of the joints");
/// assert!(shield.covers(latch.face, &latch.body) > 0.99);
/// ```
pub fn shield_over(board: &Board, component: &Component, kind: ShieldKind) -> Option<Shield> {
    let of = |overlap: f64| {
        let Rect { centre, width, depth } = component.body;
        let (width_mm, depth_mm) = (width + 2.0 * overlap, depth + 2.0 * overlap);
        Shield { kind, face: component.face, at_mm: [centre.x, centre.y], width_mm, depth_mm }
    };
    let free = |shield: &Shield| covered_joints(board, std::slice::from_ref(shield)).is_empty();
    [OVERLAP_MM, 0.0].map(of).into_iter().find(free)
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::board::{
        ComponentKind, Connector, ConnectorFamily, Face, Joint, JointShape, Outline, Point, Role, StackUp,
    };
    use crate::materials::BodyMaterial;

    /// A connector of one pad at (20, 5) on the top face, a socket that reaches to within a millimetre of it.
    fn board() -> Board {
        let at = Point { x: 20.0, y: 5.0 };
        let body = Rect { centre: at, width: 6.0, depth: 4.0 };
        let shape = JointShape::Pad { width: 1.0, depth: 1.0 };
        let (name, row, role) = ("1".to_owned(), "row".to_owned(), Role::Signal);
        let joints = vec![Joint { name, row, at, role, shape, hidden: false }];
        let (family, face, material) = (ConnectorFamily::Flex, Face::Top, BodyMaterial::Lcp);
        let (shell, pegs, height, name) = (false, 0, Length::mm(2.0), "flex".to_owned());
        let tests = vec![];
        let connector = Connector { name, family, face, body, height, material, shell, pegs, joints, tests };
        let beside = Rect { centre: Point { x: 25.0, y: 5.0 }, width: 7.0, depth: 4.0 };
        let socket = ComponentKind::Socket.at("socket", face, beside);
        let stack = StackUp { layers: 4, planes: 2, ..StackUp::usual(Length::mm(1.0)) };
        let (name, maker, outline) = ("b".to_owned(), "none".to_owned(), Outline::rectangle(60.0, 40.0));
        Board { name, maker, outline, stack, connector, components: vec![socket] }
    }

    #[test]
    fn a_shield_draws_back_from_a_joint_and_is_none_where_it_can_not() {
        let mut board = board();
        let over = |board: &Board| shield_over(board, &board.components[0], TAPE);
        let close = over(&board).expect("its body alone covers no joint");
        assert_eq!(close.width_mm, 7.0, "with an overlap it would lie over the pad");
        board.components[0].body.centre.x = 30.0;
        assert_eq!(over(&board).map(|s| s.width_mm), Some(10.0));
        board.components[0].body.centre.x = 21.0;
        assert_eq!(over(&board), None);
    }

    #[test]
    fn an_iron_without_anchors_goes_to_the_pins() {
        assert_eq!(iron(&board()).row, "row");
        assert_eq!(preheater(&board()).face, Face::Bottom, "the part stands on top");
    }
}
