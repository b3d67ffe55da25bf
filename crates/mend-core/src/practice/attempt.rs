//! An attempt as it stands, and what can be asked of it. How it goes on is in `fold`.

use super::goal::PracticeGoal;
use super::hands::Hands;
use super::harm::Harm;
use super::joint_fate::JointFate;
use super::scene::PracticeScene;
use crate::board::{Point, groups};
use crate::heat::hand_rig::{BY_HAND, HandRig};
use crate::heat::parameters::ParameterSample;
use crate::heat::traces::Traces;
use crate::planning::tolerance::{LAMINATE, Tolerance};
use crate::solder::{MeltTarget, Residue};
use crate::units::Temperature;

/// A step, s.
pub const STEP_S: f64 = BY_HAND.step_s;
/// Steps of a second.
pub const STEPS_PER_SECOND: u32 = 10;
/// Nobody holds out longer, steps: six minutes.
pub const LONGEST: u32 = 360 * STEPS_PER_SECOND;

/// What something has endured of what it stands.
#[derive(Debug, Clone, PartialEq)]
pub struct Endured {
    stands: Tolerance,
    /// 1: it is damaged.
    pub taken: f64,
    /// Since when it has been glossy, s.
    pub glossy_s: Option<f64>,
}

impl Endured {
    fn new(stands: Tolerance) -> Self {
        Self { stands, taken: 0.0, glossy_s: None }
    }

    pub(super) fn is_over(&self) -> bool {
        self.taken >= 1.0
    }

    pub(super) fn endures(&mut self, celsius: f64, at_s: f64) {
        self.taken += self.stands.taken_in(celsius, STEP_S);
        if self.stands.counts_from_c().is_some_and(|from| celsius >= from) {
            self.glossy_s.get_or_insert(at_s);
        }
    }
}

/// An attempt as it stands.
#[derive(Debug, Clone)]
pub struct Attempt {
    /// What it began with.
    pub scene: PracticeScene,
    /// What is true of it: for the debrief.
    pub truth: ParameterSample,
    /// The board under the hands.
    pub(super) rig: HandRig,
    /// What hands hold.
    pub hands: Hands,
    /// For each joint, in the connector's order.
    pub joints: Vec<JointFate>,
    /// Where each lets go, °C.
    pub lets_go_c: Vec<f64>,
    /// When the part came up, s.
    pub part_off_s: Option<f64>,
    /// The part's own body; none: there is no part.
    pub body: Option<Endured>,
    /// Every component's body.
    pub components: Vec<Endured>,
    /// The board.
    pub laminate: Endured,
    /// What was harmed, in its order.
    pub harms: Vec<Harm>,
    /// Said to be done, or out of time.
    pub finished: bool,
    /// Temperatures of every second, °C.
    pub traces: Traces,
    /// What hands held at every second.
    pub held: Vec<Hands>,
    /// How long the flux has been so hot that it browns, s.
    pub(super) browned_s: f64,
    pub(super) touched: Option<Point>,
    /// Where solder of the factory is melted, °C: what stands near is soldered with it.
    pub(super) melted_c: f64,
    pub(super) ticks: u32,
    /// Hands hold something else since the last step.
    pub(super) changed: bool,
}

impl Attempt {
    /// Before anything is done. None where the alloy of the scene can't be computed.
    ///
    /// ```
    /// use mend_core::practice::{attempt::Attempt, course::course, hands::HandMove};
    /// let mut attempt = Attempt::begin(course()[0].scene(1).expect("of the library")).expect("its alloy is known");
    /// attempt.does(HandMove::Air { on: true });
    /// (0..100).for_each(|_| attempt.tick());
    /// assert_eq!(attempt.seconds(), 10.0);
    /// ```
    pub fn begin(scene: PracticeScene) -> Option<Self> {
        let (rig, truth) = scene.rig()?;
        let board = &scene.board;
        let targets = scene.composition.targets(board).ok()?;
        let melted_c = MeltTarget::melted_of(&scene.composition.factory).map_or(f64::INFINITY, Temperature::in_celsius);
        let connector = &board.connector;
        let own = Tolerance::from_material(connector.material, connector.material.limit());
        let body = scene.goal.has_part().then(|| Endured::new(own.under(&truth)));
        let components = board.components.iter().map(|n| Endured::new(Tolerance::from_component(n).under(&truth)));
        let mut attempt = Self {
            hands: Hands::at_rest(&scene),
            joints: fates(&scene)?,
            lets_go_c: truth.lets_go(&targets).into_iter().map(Temperature::in_celsius).collect(),
            part_off_s: None,
            body,
            components: components.collect(),
            laminate: Endured::new(LAMINATE.under(&truth)),
            harms: Vec::new(),
            finished: false,
            traces: Traces::from_network(&rig.network),
            held: Vec::new(),
            browned_s: 0.0,
            touched: None,
            melted_c,
            ticks: 0,
            changed: false,
            truth,
            rig,
            scene,
        };
        attempt.record();
        Some(attempt)
    }

    /// Steps so far.
    pub fn ticks(&self) -> u32 {
        self.ticks
    }

    /// Seconds so far.
    pub fn seconds(&self) -> f64 {
        f64::from(self.ticks) / f64::from(STEPS_PER_SECOND)
    }

    /// Has it come to what it was for? Nothing is said of what was harmed.
    pub fn reached(&self) -> bool {
        let joints = || self.joints.iter().zip(&self.scene.board.connector.joints);
        match self.scene.goal {
            PracticeGoal::Remove => self.part_off_s.is_some(),
            PracticeGoal::Fit => joints().all(|(fate, _)| fate.is_wetted() && !fate.free),
            PracticeGoal::ClearHoles => joints().all(|(fate, joint)| !joint.shape.is_hole() || fate.passes > 0),
            PracticeGoal::CleanUp => (0..self.joints.len()).all(|k| self.is_hidden(k) || self.is_clean(k)),
        }
    }

    /// Reached, and nothing harmed.
    pub fn passed(&self) -> bool {
        self.finished && self.reached() && self.harms.is_empty()
    }

    /// Does the part count among what may be harmed?
    pub fn keeps_part(&self) -> bool {
        self.scene.keeps_part || self.scene.goal == PracticeGoal::Fit
    }

    /// Would the part come away if it were lifted?
    pub fn is_free(&self) -> bool {
        self.scene.goal.has_part() && self.part_off_s.is_none() && self.holding().next().is_none()
    }

    /// When the last of the joints first let go, s; none: one never did.
    pub fn last_freed_s(&self) -> Option<f64> {
        self.joints.iter().try_fold(0.0_f64, |last, joint| Some(last.max(joint.freed_s?)))
    }

    /// Joints that hold the part: neither liquid nor torn.
    pub(super) fn holding(&self) -> impl Iterator<Item = usize> {
        self.joints.iter().enumerate().filter(|(_, joint)| !joint.free && !joint.torn).map(|(k, _)| k)
    }

    /// Are the own joints of a component molten?
    pub(super) fn swims(&self, component: usize) -> bool {
        let soldered = self.scene.board.components[component].soldered() > 0.0;
        soldered && self.rig.under(&self.rig.network.stands_on[component]) >= self.melted_c
    }

    /// Is what stays in a joint so little that it may be soldered over?
    pub(super) fn is_clean(&self, joint: usize) -> bool {
        let fate = &self.joints[joint];
        fate.passes > 0 && fate.residue.is_clean(&self.scene.composition.refit.composition)
    }

    pub(super) fn is_hidden(&self, joint: usize) -> bool {
        self.scene.board.connector.joints[joint].hidden
    }

    pub(super) fn record(&mut self) {
        self.traces.record(&self.rig.view(), &self.rig.network, self.scene.ambient.in_celsius() as f32);
        self.held.push(self.hands);
    }
}

/// What lies on each joint in the beginning. None where a joint is in no group.
fn fates(scene: &PracticeScene) -> Option<Vec<JointFate>> {
    let (groups, composition) = (groups(&scene.board), &scene.composition);
    let fate = |k: usize| {
        let group = groups.iter().find(|group| group.joints.contains(&k))?;
        Some(JointFate::new(Residue::fed_group(composition, group)))
    };
    (0..scene.board.connector.joints.len()).map(fate).collect()
}
