//! What the families' tests ask about: a connector of the library on a plain board, with a usual shop.

use super::equipment::{Equipment, SkillLevel, Sucker};
use super::subject::Subject;
use super::usual::{TAPE, TENT};
use crate::board::{Board, Face, KeepIntact, Outline, Point, StackUp, library};
use crate::heat::known::Knowledge;
use crate::heat::purpose::Purpose;
use crate::heat::station::Station;
use crate::materials::Metal;
use crate::solder::JointComposition;
use crate::units::{Length, Temperature};

/// Everything that a subject borrows.
pub(crate) struct TestCase {
    pub(crate) board: Board,
    pub(crate) composition: JointComposition,
    pub(crate) station: Station,
    pub(crate) equipment: Equipment,
    pub(crate) keep_intact: KeepIntact,
}

pub(super) fn metal(name: &str) -> Metal {
    Metal::parse("alloy", name).expect("in the table")
}

/// A light board with this connector in the middle of its rim; trained hands, preheater, vacuum iron and wire.
pub(crate) fn shop(kind: &str) -> TestCase {
    let mut connector = library::kind(kind).expect("a kind").make(&library::Values::default()).expect("usual sizes");
    let by = Point { x: 60.0, y: 40.0 };
    connector.body.centre = Point { x: connector.body.centre.x + by.x, y: connector.body.centre.y + by.y };
    for joint in &mut connector.joints {
        joint.at = Point { x: joint.at.x + by.x, y: joint.at.y + by.y };
    }
    let stack = StackUp { layers: 4, planes: 1, ..StackUp::usual(Length::mm(1.2)) };
    let (name, maker, outline) = (kind.to_owned(), "none".to_owned(), Outline::rectangle(120.0, 80.0));
    let measured = Station::blind("bench 1", Temperature::celsius(500.0), &[22.0, 8.0]);
    let station = Station { jet_spread: 0.1, flow_spread: 0.05, ..measured };
    let equipment = Equipment {
        level: SkillLevel::Trained,
        tips: vec![Length::mm(2.0), Length::mm(4.0)],
        preheater: true,
        sucker: Sucker::Vacuum,
        wire: true,
        shields: vec![TAPE, TENT],
        alloys: ["SAC305", "Sn63Pb37", "Sn42Bi58"].map(metal).into(),
    };
    let board = Board { name, maker, outline, stack, connector, components: Vec::new() };
    let composition = JointComposition::factory(metal("SAC305"));
    TestCase { board, composition, station, equipment, keep_intact: KeepIntact::Board }
}

impl TestCase {
    pub(crate) fn subject(&self) -> Subject<'_> {
        let Self { board, composition, station, equipment, keep_intact } = self;
        let (keep_intact, known) = (*keep_intact, &Knowledge::NOTHING);
        Subject { board, composition, station, equipment, keep_intact, known, purpose: Purpose::Remove }
    }

    /// Twice the copper and more: a board that carries heat away.
    pub(super) fn heavy(mut self) -> Self {
        let stack = &mut self.board.stack;
        (stack.layers, stack.planes, stack.thickness) = (12, 6, Length::mm(2.0));
        self
    }

    /// With a plastic latch at this gap from the part's far edge.
    pub(super) fn latch(mut self, gap: f64) -> Self {
        let body = self.board.connector.body;
        let depth = 3.0;
        let centre = Point { x: body.centre.x, y: body.far() + gap + depth / 2.0 };
        let place = crate::board::Rect { centre, width: 10.0, depth };
        let plain = crate::board::ComponentKind::FlexLatch.at("latch", Face::Top, place);
        let material = crate::materials::BodyMaterial::Pa66;
        self.board.components.push(crate::board::Component { material, ..plain });
        self
    }
}

/// Every reason against.
pub(super) fn against(method: &dyn super::Method, shop: &TestCase) -> Vec<super::reason::Obstacle> {
    method.fit(&shop.subject()).against
}
