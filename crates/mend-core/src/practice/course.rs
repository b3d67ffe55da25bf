//! The course: eight tasks, each on a board of its own, the next opened by the one before.

use super::goal::{PracticeGoal, low_melt};
use super::scene::PracticeScene;
use crate::board::library::{self, Values};
use crate::board::{Board, Component, ComponentKind, Face, Outline, Point, Pose, Rect, StackUp, Turn};
use crate::heat::bridge::Bridge;
use crate::heat::station::Station;
use crate::materials::{Alloy, Metal};
use crate::method::equipment::SkillLevel;
use crate::solder::JointComposition;
use crate::units::{Length, Temperature};

/// Those of the first, passed twice each, make somebody "trained".
const TRAINED_BY: usize = 4;
const TWICE: u32 = 2;
/// The room.
const AMBIENT: Temperature = Temperature::celsius(23.0);

/// A task of the course.
#[derive(Debug)]
pub struct PracticeTask {
    /// As it stands in addresses.
    pub key: &'static str,
    /// What is to be done.
    pub goal: PracticeGoal,
    /// A wire lies along its joints, and an iron heats it: no air.
    pub by_iron: bool,
    board: fn() -> Option<Board>,
}

/// The tasks, the easiest first.
pub fn course() -> &'static [PracticeTask] {
    const AIR: PracticeTask = PracticeTask { key: "", goal: PracticeGoal::Remove, by_iron: false, board: thin_shell };
    const COURSE: &[PracticeTask] = &[
        PracticeTask { key: "thin-shell", ..AIR },
        PracticeTask { key: "latch-beside", board: latch_beside, ..AIR },
        PracticeTask { key: "jack-in-holes", board: jack_in_holes, ..AIR },
        PracticeTask { key: "ten-layers", board: ten_layers, ..AIR },
        PracticeTask { key: "iron-and-wire", by_iron: true, board: iron_and_wire, ..AIR },
        PracticeTask { key: "new-port", goal: PracticeGoal::Fit, board: latch_beside, ..AIR },
        PracticeTask { key: "full-holes", goal: PracticeGoal::ClearHoles, by_iron: true, board: full_holes },
        PracticeTask { key: "low-melt", goal: PracticeGoal::CleanUp, by_iron: true, board: low_melt_lands },
    ];
    COURSE
}

/// A task by its key.
///
/// ```
/// use mend_core::practice::course::{course, task};
/// assert_eq!(course().len(), 8);
/// assert!(course().iter().all(|one| task(one.key).is_some_and(|found| found.goal == one.goal)));
/// ```
pub fn task(key: &str) -> Option<&'static PracticeTask> {
    course().iter().find(|task| task.key == key)
}

impl PracticeTask {
    /// Its scene, with one of the truths. None where library or table no longer have what it needs, which a test holds.
    pub fn scene(&self, seed: u32) -> Option<PracticeScene> {
        let board = (self.board)()?;
        let mut composition = JointComposition::factory(Metal::from(Alloy::named("SAC305")?));
        if self.goal == PracticeGoal::CleanUp {
            composition.feed = Some(low_melt(&board)?);
        }
        let wired = self.by_iron && self.goal == PracticeGoal::Remove;
        Some(PracticeScene {
            board,
            station: Station::blind("practice bench", Temperature::celsius(480.0), &[22.0, 10.0, 5.0]),
            composition,
            goal: self.goal,
            keeps_part: false,
            shields: Vec::new(),
            bridge: wired.then_some(Bridge { wire_mm: 1.0, bead_mm2: 1.5 }),
            ambient: AMBIENT,
            seed,
        })
    }
}

/// Is a task open to somebody who passed each so often?
///
/// ```
/// use mend_core::practice::course::is_open;
/// assert!(is_open(0, &[]) && !is_open(1, &[0]) && is_open(1, &[1]));
/// ```
pub fn is_open(place: usize, passed: &[u32]) -> bool {
    place.checked_sub(1).is_none_or(|before| passed.get(before).is_some_and(|times| *times > 0))
}

/// The level that somebody's record gives them: trained, once the first four tasks have been passed twice without damage.
///
/// ```
/// use mend_core::method::equipment::SkillLevel;
/// use mend_core::practice::course::level;
/// assert_eq!(level(&[2, 2, 2, 1]), None);
/// assert_eq!(level(&[2, 3, 2, 2]), Some(SkillLevel::Trained));
/// ```
pub fn level(passed: &[u32]) -> Option<SkillLevel> {
    let first = passed.get(..TRAINED_BY)?;
    first.iter().all(|times| *times >= TWICE).then_some(SkillLevel::Trained)
}

/// A board of 60 x 40 mm with a part of the library at its near edge.
fn board(name: &str, key: &str, values: &[(&str, f64)], stack: StackUp) -> Option<Board> {
    let values: Values = values.iter().map(|(key, value)| ((*key).to_owned(), *value)).collect();
    let part = library::kind(key)?.make(&values).ok()?;
    let at = Point { x: 30.0, y: part.body.depth / 2.0 + 1.0 };
    Some(Board {
        name: name.to_owned(),
        maker: "practice bench".to_owned(),
        outline: Outline::rectangle(60.0, 40.0),
        stack,
        connector: part.placed(Pose { at, turn: Turn::None, face: Face::Top }),
        components: Vec::new(),
    })
}

/// Something beside the part: (x, y), width and depth, mm.
fn beside(kind: ComponentKind, name: &str, [x, y, width, depth]: [f64; 4]) -> Component {
    kind.at(name, Face::Top, Rect { centre: Point { x, y }, width, depth })
}

fn layers(thickness_mm: f64, layers: u32, planes: u32) -> StackUp {
    StackUp { layers, planes, ..StackUp::usual(Length::mm(thickness_mm)) }
}

fn thin_shell() -> Option<Board> {
    board("thin board, metal shell", "micro-usb", &[], layers(0.8, 4, 1))
}

fn latch_beside() -> Option<Board> {
    let latch = beside(ComponentKind::FlexLatch, "latch", [30.0, 18.0, 12.0, 3.0]);
    let board = board("latch beside the port", "usb-c-top", &[], layers(1.0, 6, 2))?;
    Some(Board { components: vec![latch], ..board })
}

fn jack_in_holes() -> Option<Board> {
    let can = beside(ComponentKind::ElectrolyticCan, "C7", [52.0, 22.0, 6.3, 6.3]);
    let board = board("jack in plated holes", "power-jack", &[], layers(1.6, 4, 1))?;
    Some(Board { components: vec![can], ..board })
}

fn ten_layers() -> Option<Board> {
    let latch = beside(ComponentKind::FlexLatch, "latch", [30.0, 13.5, 14.0, 3.0]);
    let filter = beside(ComponentKind::Filter, "L4", [38.5, 6.0, 2.0, 1.2]);
    let board = board("two rows, ten layers", "usb-c-mid", &[], layers(1.2, 10, 4))?;
    Some(Board { components: vec![latch, filter], ..board })
}

fn iron_and_wire() -> Option<Board> {
    board("header, by iron and wire", "header", &[("ways", 8.0)], layers(1.6, 4, 1))
}

fn full_holes() -> Option<Board> {
    board("four full holes", "header", &[("ways", 4.0)], layers(1.6, 4, 1))
}

fn low_melt_lands() -> Option<Board> {
    board("five lands with low-melt", "battery-contacts", &[], layers(1.0, 4, 1))
}
