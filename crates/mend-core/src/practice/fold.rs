//! How an attempt goes on: a fold over what hands did, a step at a time. The same scene and events give the same attempt, to the bit.

use super::attempt::{Attempt, LONGEST, STEP_S, STEPS_PER_SECOND};
use super::consequence::{ALWAYS, AT_THE_END, pull};
use super::goal::PracticeGoal;
use super::hands::{HandEvent, HandMove, tip_of};
use super::harm::{Harm, Harmed};
use super::joint_fate::JointFate;
use super::scene::PracticeScene;
use crate::board::{Joint, Point};
use crate::heat::shield::Shield;
use crate::method::usual::{TAPE, shield_over};

/// Flux browns from here on, °C (E, 220-260).
const BROWNS_C: f64 = 230.0;

impl Attempt {
    /// The whole of it from what hands did, up to a step.
    pub fn replayed(scene: PracticeScene, events: &[HandEvent], ticks: u32) -> Option<Self> {
        let mut attempt = Self::begin(scene)?;
        let mut events = events.iter().peekable();
        loop {
            while let Some(event) = events.next_if(|event| event.tick <= attempt.ticks) {
                attempt.does(event.does);
            }
            if attempt.ticks >= ticks || attempt.finished {
                return Some(attempt);
            }
            attempt.tick();
        }
    }

    /// Hands do something.
    pub fn does(&mut self, does: HandMove) {
        if self.finished {
            return;
        }
        if let HandMove::Cover { x_mm, y_mm } = does {
            return self.cover(Point { x: x_mm, y: y_mm });
        }
        let before = self.hands;
        self.hands = before.after(does, &self.scene);
        self.changed |= self.hands != before;
        self.tip_goes(before.tip_on, self.hands.tip_on);
        match does {
            HandMove::Touch { x_mm, y_mm } => self.touched = Some(Point { x: x_mm, y: y_mm }),
            HandMove::Braid { on: true } => self.joints.iter_mut().for_each(JointFate::fresh_braid),
            HandMove::Wire => self.feed(),
            HandMove::Finish => self.finish(),
            _ => {}
        }
    }

    /// A step on.
    pub fn tick(&mut self) {
        if self.finished {
            return;
        }
        if self.changed {
            let tools = self.hands.tools(&self.scene, &self.rig.network, &self.truth);
            self.rig.work(&tools);
            self.changed = false;
        }
        self.rig.advance();
        self.ticks += 1;
        self.look_at_joints();
        self.endure();
        self.suffer(&ALWAYS);
        if self.scene.goal == PracticeGoal::Remove && self.part_off_s.is_none() && pull::comes_up(self) {
            self.part_off_s = Some(self.seconds());
        }
        self.touched = None;
        if self.ticks.is_multiple_of(STEPS_PER_SECOND) {
            self.record();
        }
        if self.ticks >= LONGEST {
            self.finish();
        }
    }

    /// Tape is laid over a component, or taken off it, as long as the clock stands.
    fn cover(&mut self, at: Point) {
        let board = &self.scene.board;
        let Some(component) = board.components.iter().find(|n| n.body.covers(at)).filter(|_| self.ticks == 0) else {
            return;
        };
        let covers = |shield: &Shield| shield.covers(component.face, &component.body) > 0.0;
        let shields = match self.scene.shields.iter().position(covers) {
            Some(laid) => self.scene.shields.iter().enumerate().filter(|(k, _)| *k != laid).map(|(_, s)| *s).collect(),
            None => self.scene.shields.iter().copied().chain(shield_over(board, component, TAPE)).collect(),
        };
        let scene = PracticeScene { shields, ..self.scene.clone() };
        if let Some(begun) = Self::begin(scene) {
            // Whatever hands hold already they go on holding.
            *self = Self { hands: self.hands, changed: true, ..begun };
        }
    }

    fn tip_goes(&mut self, from: Option<usize>, to: Option<usize>) {
        let tip = |joint: Option<usize>| joint.and_then(|joint| tip_of(&self.rig.network, joint));
        match (tip(from), tip(to)) {
            (None, Some(to)) => self.rig.heat_tip(to, self.hands.iron_rise(&self.scene)),
            (Some(from), Some(to)) if from != to => self.rig.hand_on(from, to),
            _ => {}
        }
    }

    fn feed(&mut self) {
        let refit = self.scene.composition.refit.composition;
        if let Some(joint) = self.hands.tip_on.filter(|joint| self.joints[*joint].free) {
            self.joints[joint].residue.flooded(&refit);
        }
    }

    fn look_at_joints(&mut self) {
        let at_s = self.seconds();
        for k in 0..self.joints.len() {
            let free = self.rig.is_free(k);
            self.joints[k].goes_on(free, at_s, STEP_S);
        }
        if let Some(joint) = self.hands.tip_on.filter(|_| self.hands.braid) {
            self.joints[joint].braided(STEP_S);
        }
    }

    fn endure(&mut self) {
        let (at_s, rig) = (self.seconds(), &self.rig);
        if let Some(body) = self.body.as_mut().filter(|_| self.part_off_s.is_none()) {
            body.endures(rig.celsius(rig.network.body), at_s);
        }
        for (component, node) in self.components.iter_mut().zip(&rig.network.components) {
            component.endures(rig.celsius(*node), at_s);
        }
        self.laminate.endures(rig.laminate(), at_s);
        if rig.under(&rig.network.pads) >= BROWNS_C {
            self.browned_s += STEP_S;
        }
    }

    /// What is harmed now, once each.
    fn suffer(&mut self, rules: &[fn(&Self) -> Vec<Harm>]) {
        let harms: Vec<Harm> = rules.iter().flat_map(|rule| rule(self)).collect();
        for harm in harms {
            if self.harms.iter().any(|known| known.what == harm.what) {
                continue;
            }
            if let Harmed::PadLifted { joint } | Harmed::BarrelPulled { joint } = &harm.what {
                let torn = |named: &Joint| named.name == *joint;
                let place = self.scene.board.connector.joints.iter().position(torn);
                place.into_iter().for_each(|k| self.joints[k].torn = true);
            }
            self.harms.push(harm);
        }
    }

    fn finish(&mut self) {
        self.finished = true;
        self.suffer(&ALWAYS);
        self.suffer(&AT_THE_END);
    }
}
