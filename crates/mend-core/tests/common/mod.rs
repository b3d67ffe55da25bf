//! A made-up board for the tests: a two-row port with four shell anchors near the rim, a latch beside it, a can below.
#![allow(dead_code, clippy::expect_used, reason = "each test file uses its part")]

pub(crate) mod metals;

use mend_core::board::Crowding;
use mend_core::board::{
    Board, Component, ComponentKind, Connector, ConnectorFamily, Face, Joint, JointShape, Outline, Point, Rect, Role,
    StackUp,
};
use mend_core::heat::case::Case;
use mend_core::heat::known::Knowledge;
use mend_core::heat::motion::Motion;
use mend_core::heat::purpose::Purpose;
use mend_core::heat::recipe::Recipe;
use mend_core::heat::station::Station;
use mend_core::heat::tool::HotAir;
use mend_core::materials::{BodyMaterial, Metal};
use mend_core::solder::{Feed, JointComposition, Wire};
use mend_core::units::{Duration, Flow, Length, Temperature};
use mend_core::watch::Watch;

/// Nobody cancels.
pub(crate) static WANTED: Watch = Watch::new();

pub(crate) fn board() -> Board {
    Board {
        name: "test laptop".to_owned(),
        maker: "none".to_owned(),
        outline: Outline::rectangle(110.0, 80.0),
        stack: StackUp {
            thickness: Length::mm(1.0),
            layers: 8,
            planes: 3,
            foil_um: 25.0,
            plane_coverage: 0.75,
            signal_coverage: 0.3,
            vias_per_mm2: None,
            spread: None,
            crowding: Crowding::Usual,
            stiffener: None,
        },
        connector: connector(),
        components: vec![
            component("latch", [55.0, 16.0, 14.0, 4.0], Face::Top, BodyMaterial::Pa66),
            component("C7", [48.0, 9.0, 4.0, 4.0], Face::Bottom, BodyMaterial::ElectrolyticCan),
        ],
    }
}

pub(crate) fn component(name: &str, [x, y, width, depth]: [f64; 4], face: Face, material: BodyMaterial) -> Component {
    let body = Rect { centre: Point { x, y }, width, depth };
    let plain = ComponentKind::Chip.at(name, face, body);
    Component { height: Length::mm(2.0), material, own_joints: None, ..plain }
}

fn connector() -> Connector {
    let row = |row: &str, y: f64, hidden: bool| -> Vec<Joint> {
        (0..12)
            .map(|k| Joint {
                name: format!("{row}{}", k + 1),
                row: row.to_owned(),
                at: Point { x: 27.25 + 0.5 * f64::from(k), y },
                role: if k == 0 || k == 11 { Role::Ground } else { Role::Signal },
                shape: JointShape::Pad { width: 0.3, depth: 1.0 },
                hidden,
            })
            .collect()
    };
    let anchors = [(25.7, 2.2), (34.3, 2.2), (25.7, 6.4), (34.3, 6.4)];
    let anchors = anchors.iter().enumerate().map(|(k, (x, y))| Joint {
        name: format!("leg {}", k + 1),
        row: "anchors".to_owned(),
        at: Point { x: *x, y: *y },
        role: Role::Anchor,
        shape: JointShape::Hole { drill: 0.8, pad: 1.3 },
        hidden: false,
    });
    Connector {
        name: "two-row port".to_owned(),
        family: ConnectorFamily::Port,
        face: Face::Top,
        body: Rect { centre: Point { x: 30.0, y: 4.0 }, width: 9.0, depth: 7.4 },
        height: Length::mm(3.2),
        material: BodyMaterial::Lcp,
        shell: true,
        pegs: 0,
        joints: row("A", 8.0, false).into_iter().chain(row("B", 6.9, true)).chain(anchors).collect(),
        tests: vec![],
    }
}

pub(crate) fn station() -> Station {
    Station::blind("bench 1", Temperature::celsius(500.0), &[22.0, 10.0, 8.0])
}

/// A bare nozzle from below, up to five minutes.
pub(crate) fn below(set: f64) -> Recipe {
    Recipe { longest: Duration::seconds(300.0), ..Recipe::from(air_below(set)) }
}

/// Its air.
pub(crate) fn air_below(set: f64) -> HotAir {
    HotAir {
        set: Temperature::celsius(set),
        flow: Flow::litres_per_minute(90.0),
        nozzle: Length::mm(22.0),
        distance: Length::mm(25.0),
        face: Face::Bottom,
        motion: Motion::Still,
        aim: [0.0, 0.0],
        approach: None,
        tilt: None,
    }
}

pub(crate) fn sac305() -> JointComposition {
    JointComposition::factory(Metal::parse("alloy", "SAC305").expect("in the table"))
}

/// SAC305 joints with this share of an alloy fed to some rows, as 0.5 mm wire.
pub(crate) fn fed(name: &str, share: f64, rows: &[&str]) -> JointComposition {
    let metal = Metal::parse("feed", name).expect("a metal");
    let rows = rows.iter().map(|row| (*row).to_owned()).collect();
    JointComposition { feed: Some(Feed { metal, wire: Wire::USUAL, mixing_fraction: share, rows }), ..sac305() }
}

pub(crate) fn with_case<T>(board: &Board, recipe: &Recipe, then: impl FnOnce(&Case<'_>) -> T) -> T {
    let melting = sac305().targets(board).expect("computed");
    let ambient = Temperature::celsius(23.0);
    then(&Case {
        board,
        melting: &melting,
        station: &station(),
        recipe,
        purpose: Purpose::Remove,
        ambient,
        known: &Knowledge::NOTHING,
        thermocouples: &[],
        watch: &WANTED,
    })
}
