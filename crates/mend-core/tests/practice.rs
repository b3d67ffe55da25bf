//! The practice bench: whoever follows the cues passes, whoever is in a hurry does not; the same events give the same bits.
#![allow(clippy::unwrap_used)]

use mend_core::board::Face;
use mend_core::practice::attempt::{Attempt, STEPS_PER_SECOND};
use mend_core::practice::course::{PracticeTask, course, task};
use mend_core::practice::cues::{Cues, JointLook, PlasticLook};
use mend_core::practice::debrief::{DebriefPoint, debrief};
use mend_core::practice::goal::PracticeGoal;
use mend_core::practice::hands::{HandEvent, HandMove};
use mend_core::practice::harm::Harmed;

/// An attempt with what was done in it.
struct Hand {
    attempt: Attempt,
    done: Vec<HandEvent>,
}

impl Hand {
    fn at(task: &PracticeTask, seed: u32) -> Self {
        Self { attempt: Attempt::begin(task.scene(seed).unwrap()).unwrap(), done: Vec::new() }
    }

    fn does(&mut self, does: HandMove) {
        self.done.push(HandEvent { tick: self.attempt.ticks(), does });
        self.attempt.does(does);
    }

    fn waits(&mut self, seconds: f64) {
        let steps = (seconds * f64::from(STEPS_PER_SECOND)) as u32;
        (0..steps).for_each(|_| self.attempt.tick());
    }

    fn cues(&self) -> Cues {
        Cues::of(&self.attempt)
    }

    /// Looks every half second until it sees something, or for so long.
    fn waits_until(&mut self, sees: impl Fn(&Cues) -> bool, longest: f64) -> bool {
        for _ in 0..(2.0 * longest) as u32 {
            if sees(&self.cues()) {
                return true;
            }
            self.waits(0.5);
        }
        false
    }

    /// Wide air from below, far from the plastic above.
    fn blows_from_below(&mut self, celsius: f64) {
        for does in [
            HandMove::From { face: Face::Bottom },
            HandMove::Set { celsius },
            HandMove::Flow { litres: 100.0 },
            HandMove::Nozzle { mm: 22.0 },
            HandMove::Distance { mm: 22.0 },
            HandMove::Air { on: true },
        ] {
            self.does(does);
        }
    }

    fn tip_on(&mut self, joint: usize) {
        let at = self.attempt.scene.board.connector.joints[joint].at;
        self.does(HandMove::Iron { x_mm: at.x, y_mm: at.y });
    }
}

/// Goes by cues alone: it knows neither temperatures nor what is true.
fn expert(task: &PracticeTask, seed: u32) -> Hand {
    let mut hand = Hand::at(task, seed);
    match task.goal {
        PracticeGoal::Remove if task.by_iron => by_iron_and_wire(&mut hand),
        PracticeGoal::Remove => by_air(&mut hand),
        PracticeGoal::Fit => fits(&mut hand),
        PracticeGoal::ClearHoles | PracticeGoal::CleanUp => with_braid(&mut hand),
    }
    hand.does(HandMove::Finish);
    hand
}

fn by_air(hand: &mut Hand) {
    hand.blows_from_below(400.0);
    hand.does(HandMove::Grip { on: true });
    // Where nothing is free after a good while it gets a little hotter, as a hand does.
    for celsius in [400.0, 430.0, 460.0, 480.0] {
        hand.does(HandMove::Set { celsius });
        if hand.waits_until(|cues| cues.twitches, 45.0) {
            break;
        }
    }
    hand.does(HandMove::Pull { newton: 2.0 });
    hand.waits(0.5);
    hand.does(HandMove::Air { on: false });
}

fn fits(hand: &mut Hand) {
    hand.blows_from_below(400.0);
    let all_shine = |cues: &Cues| cues.joints.iter().all(|look| matches!(look, JointLook::Shiny | JointLook::Hidden));
    for celsius in [400.0, 430.0, 460.0, 480.0] {
        hand.does(HandMove::Set { celsius });
        if hand.waits_until(all_shine, 70.0) {
            break;
        }
    }
    // What is hidden under the body wants a little longer.
    hand.waits(3.0);
    hand.does(HandMove::Air { on: false });
    hand.waits_until(|cues| cues.joints.iter().all(|look| *look != JointLook::Shiny), 60.0);
    hand.waits(5.0);
}

fn by_iron_and_wire(hand: &mut Hand) {
    hand.does(HandMove::IronSet { celsius: 400.0 });
    hand.does(HandMove::Grip { on: true });
    let joints = hand.attempt.joints.len();
    'round: for _ in 0..30 {
        for joint in 0..joints {
            hand.tip_on(joint);
            if hand.waits_until(|cues| cues.twitches, 1.0) {
                break 'round;
            }
        }
    }
    hand.does(HandMove::Pull { newton: 2.0 });
    hand.waits(0.5);
    hand.does(HandMove::Lift);
}

fn with_braid(hand: &mut Hand) {
    hand.does(HandMove::IronSet { celsius: 380.0 });
    let wanted = if hand.attempt.scene.goal == PracticeGoal::CleanUp { 4 } else { 1 };
    for joint in 0..hand.attempt.joints.len() {
        for pass in 0..wanted {
            hand.tip_on(joint);
            hand.waits_until(|cues| cues.joints[joint] == JointLook::Shiny, 20.0);
            if pass > 0 {
                hand.does(HandMove::Wire);
            }
            hand.does(HandMove::Braid { on: true });
            let before = hand.cues().passes;
            hand.waits_until(|cues| cues.passes > before, 10.0);
            hand.does(HandMove::Braid { on: false });
            hand.does(HandMove::Lift);
            hand.waits(0.5);
        }
    }
}

/// Hottest, nearest, and a pull before anything is molten.
fn bungler(task: &PracticeTask, seed: u32) -> Hand {
    let mut hand = Hand::at(task, seed);
    for does in [
        HandMove::Set { celsius: 480.0 },
        HandMove::Flow { litres: 120.0 },
        HandMove::Nozzle { mm: 10.0 },
        HandMove::Distance { mm: 3.0 },
        HandMove::Air { on: true },
        HandMove::IronSet { celsius: 450.0 },
    ] {
        hand.does(does);
    }
    hand.tip_on(0);
    hand.waits(18.0);
    hand.does(HandMove::Pull { newton: 8.0 });
    hand.waits(2.0);
    hand.does(HandMove::Finish);
    hand
}

#[test]
fn whoever_goes_by_the_cues_passes_every_task() {
    for task in course() {
        for seed in [3, 17, 40] {
            let hand = expert(task, seed);
            let (said, harms) = (debrief(&hand.attempt), &hand.attempt.harms);
            assert!(
                hand.attempt.passed(),
                "{} {seed}: {harms:?} {said:?} after {} s",
                task.key,
                hand.attempt.seconds()
            );
        }
    }
}

#[test]
fn the_hottest_air_and_an_early_pull_pass_none() {
    for task in course() {
        for seed in [3, 17, 40] {
            let hand = bungler(task, seed);
            assert!(!hand.attempt.passed(), "{} {seed}", task.key);
            assert!(!matches!(debrief(&hand.attempt)[0], DebriefPoint::Clean { .. }));
        }
    }
}
/// Air from above on the latch of the second task, held still or kept moving, until it is damaged, s.
fn latch_lasts(change: impl Fn(&mut Hand), moves: impl Fn(&mut Hand, u32)) -> f64 {
    let mut hand = Hand::at(task("latch-beside").unwrap(), 17);
    let latch = hand.attempt.scene.board.components[0].body.centre;
    for does in [
        HandMove::From { face: Face::Top },
        HandMove::Set { celsius: 380.0 },
        HandMove::Flow { litres: 60.0 },
        HandMove::Nozzle { mm: 10.0 },
        HandMove::Distance { mm: 15.0 },
        HandMove::Aim { x_mm: latch.x, y_mm: latch.y },
        HandMove::Air { on: true },
    ] {
        hand.does(does);
    }
    change(&mut hand);
    for half in 0..600 {
        moves(&mut hand, half);
        hand.waits(0.5);
        if hand.attempt.harms.iter().any(|harm| matches!(harm.what, Harmed::Component { .. })) {
            return hand.attempt.seconds();
        }
    }
    300.0
}

#[test]
fn still_air_damages_plastic_sooner_than_moving_air_and_air_from_below_spares_it() {
    let still = latch_lasts(|_| (), |_, _| ());
    let moving = latch_lasts(
        |_| (),
        |hand, half| {
            let angle = f64::from(half) * 0.8;
            let middle = hand.attempt.scene.board.connector.body.centre;
            hand.does(HandMove::Aim { x_mm: middle.x + 12.0 * angle.cos(), y_mm: middle.y + 12.0 * angle.sin() });
        },
    );
    let below = latch_lasts(|hand| hand.does(HandMove::From { face: Face::Bottom }), |_, _| ());
    assert!(still < 60.0 && moving > 1.5 * still && below > 1.5 * still, "{still} {moving} {below} s");
}

#[test]
fn tape_over_plastic_delays_its_damage_and_is_laid_before_the_clock_runs() {
    let lasts = |taped: bool| {
        let mut hand = Hand::at(task("latch-beside").unwrap(), 17);
        let latch = hand.attempt.scene.board.components[0].body.centre;
        let cover = HandMove::Cover { x_mm: latch.x, y_mm: latch.y };
        // Laid, taken off, and laid again where it is wanted; what is set meanwhile stays set.
        hand.does(HandMove::Flow { litres: 77.0 });
        hand.does(cover);
        assert_eq!(hand.attempt.hands.flow, 77.0);
        assert_eq!(hand.attempt.scene.shields.len(), 1);
        hand.does(cover);
        if taped {
            hand.does(cover);
        }
        for does in [
            HandMove::Set { celsius: 380.0 },
            HandMove::Aim { x_mm: latch.x, y_mm: latch.y },
            HandMove::Distance { mm: 15.0 },
            HandMove::Air { on: true },
        ] {
            hand.does(does);
        }
        hand.waits(0.1);
        hand.does(cover);
        assert_eq!(hand.attempt.scene.shields.len(), usize::from(taped), "nothing is laid on while it is hot");
        while hand.attempt.harms.is_empty() && hand.attempt.seconds() < 300.0 {
            hand.attempt.tick();
        }
        hand.attempt.seconds()
    };
    let (bare, taped) = (lasts(false), lasts(true));
    assert!(taped > 1.2 * bare, "{bare} {taped} s");
}

/// Air from below on the first task until a light grip says that all is free.
fn until_free() -> Hand {
    let mut hand = Hand::at(task("thin-shell").unwrap(), 40);
    hand.blows_from_below(400.0);
    hand.does(HandMove::Grip { on: true });
    assert!(hand.waits_until(|cues| cues.twitches, 200.0));
    hand
}

#[test]
fn a_pull_before_the_melt_lifts_a_land_and_the_same_pull_after_it_does_not() {
    let free_at = until_free().attempt.seconds();
    let mut early = Hand::at(task("thin-shell").unwrap(), 40);
    early.blows_from_below(400.0);
    early.waits(0.7 * free_at);
    early.does(HandMove::Pull { newton: 8.0 });
    early.waits(0.5);
    let torn = |hand: &Hand| hand.attempt.harms.iter().filter(|harm| harm.force_n.is_some()).count();
    assert!(torn(&early) > 0, "{:?}", early.attempt.harms);
    assert!(matches!(&debrief(&early.attempt)[0], DebriefPoint::PulledEarly { short_k, .. } if *short_k > 0.0));
    let mut late = until_free();
    late.does(HandMove::Pull { newton: 8.0 });
    late.waits(0.5);
    assert!(torn(&late) == 0 && late.attempt.reached());
    // Cold, a quarter of it lifts nothing: copper holds on to cold laminate.
    let mut cold = Hand::at(task("thin-shell").unwrap(), 40);
    cold.does(HandMove::Pull { newton: 2.0 });
    cold.waits(0.5);
    assert!(torn(&cold) == 0 && !cold.attempt.reached());
}

#[test]
fn a_barrel_comes_with_a_leg_that_is_not_molten() {
    let mut hand = Hand::at(task("jack-in-holes").unwrap(), 17);
    hand.blows_from_below(400.0);
    hand.waits_until(|cues| cues.joints.contains(&JointLook::Shiny), 200.0);
    hand.does(HandMove::Pull { newton: 8.0 });
    hand.waits(1.0);
    assert!(hand.attempt.harms.iter().any(|harm| matches!(harm.what, Harmed::BarrelPulled { .. })));
}

#[test]
fn what_stands_near_floats_when_it_is_touched_while_its_own_joints_are_liquid_and_not_before() {
    let mut hand = Hand::at(task("ten-layers").unwrap(), 17);
    let filter = hand.attempt.scene.board.components[1].body.centre;
    let touch = HandMove::Touch { x_mm: filter.x, y_mm: filter.y };
    hand.does(touch);
    hand.waits(0.5);
    assert!(hand.attempt.harms.is_empty(), "cold, it holds");
    hand.blows_from_below(480.0);
    hand.does(HandMove::Aim { x_mm: filter.x, y_mm: filter.y });
    for _ in 0..200 {
        hand.does(touch);
        hand.waits(0.5);
    }
    let floated = Harmed::Floated { name: "L4".to_owned() };
    let harm = hand.attempt.harms.iter().find(|harm| harm.what == floated).expect("it swims in the end");
    assert!(harm.at_s > 10.0 && hand.cues().components[1].moved);
}

#[test]
fn one_pass_leaves_alloy_that_the_pin_walk_finds_and_a_new_part_that_is_moved_while_it_floats_is_no_fit() {
    let mut hand = Hand::at(task("low-melt").unwrap(), 3);
    hand.tip_on(0);
    hand.does(HandMove::Braid { on: true });
    hand.waits(8.0);
    hand.does(HandMove::Finish);
    assert!(
        matches!(&debrief(&hand.attempt)[0], DebriefPoint::AlloyLeft { passes: 0, .. }),
        "four lands were not touched"
    );
    let mut hand = Hand::at(task("new-port").unwrap(), 17);
    hand.blows_from_below(420.0);
    hand.waits_until(|cues| cues.joints.contains(&JointLook::Shiny), 120.0);
    hand.does(HandMove::Pull { newton: 1.0 });
    hand.waits(0.5);
    assert!(hand.attempt.harms.iter().any(|harm| harm.what == Harmed::PartMoved));
}

#[test]
fn what_was_not_done_is_said_though_nothing_went_wrong() {
    let mut hand = Hand::at(task("full-holes").unwrap(), 3);
    for joint in 0..4 {
        hand.tip_on(joint);
        hand.waits_until(|cues| cues.joints[joint] == JointLook::Shiny, 20.0);
    }
    hand.does(HandMove::Finish);
    let goal = PracticeGoal::ClearHoles;
    assert_eq!(debrief(&hand.attempt), [DebriefPoint::NotDone { goal }], "molten, and no braid");
}

#[test]
fn plastic_turns_glossy_and_sags_before_it_is_damaged() {
    let mut hand = Hand::at(task("latch-beside").unwrap(), 40);
    let latch = hand.attempt.scene.board.components[0].body.centre;
    hand.does(HandMove::Aim { x_mm: latch.x, y_mm: latch.y });
    hand.does(HandMove::Distance { mm: 20.0 });
    hand.does(HandMove::Set { celsius: 420.0 });
    hand.does(HandMove::Air { on: true });
    let mut seen = vec![PlasticLook::Sound];
    for _ in 0..1200 {
        hand.waits(0.1);
        let look = hand.cues().components[0].plastic;
        if seen.last() != Some(&look) {
            seen.push(look);
        }
    }
    assert_eq!(seen, [PlasticLook::Sound, PlasticLook::Glossy, PlasticLook::Sags, PlasticLook::Damaged]);
    let harm = &hand.attempt.harms[0];
    assert!(harm.seen_s.is_some_and(|seen| seen < harm.at_s), "it could be seen coming");
}

#[test]
fn the_same_events_give_the_same_bits() {
    for task in [&course()[1], &course()[7]] {
        let hand = expert(task, 51);
        let again = Attempt::replayed(task.scene(51).unwrap(), &hand.done, u32::MAX).unwrap();
        assert_eq!(again.ticks(), hand.attempt.ticks());
        let bits = |attempt: &Attempt| -> Vec<u32> {
            let curves = attempt.traces.joints.iter().chain([&attempt.traces.body, &attempt.traces.laminate]);
            curves.flatten().map(|t| t.to_bits()).collect()
        };
        assert_eq!(bits(&again), bits(&hand.attempt));
        assert_eq!((&again.harms, Cues::of(&again).bytes()), (&hand.attempt.harms, Cues::of(&hand.attempt).bytes()));
        let other = Attempt::replayed(task.scene(52).unwrap(), &hand.done, u32::MAX).unwrap();
        assert_ne!(bits(&other), bits(&hand.attempt), "another truth is another attempt");
    }
}
