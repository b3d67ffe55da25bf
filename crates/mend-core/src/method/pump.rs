//! Pump or vacuum iron: each hole emptied for itself, then the part lifts out cold.

use super::fit::Fit;
use super::means::{Level, Sucker};
use super::start::{Start, fed, irons, unfed};
use super::subject::Subject;
use super::{Family, Method, Words};
use crate::caution::Caution;
use crate::heat::iron::Iron;
use crate::heat::recipe::{Helpers, Pass, Recipe};
use crate::units::{Duration, Length, Temperature};

/// On each hole, s (E: until the far side runs, and the suck).
const DWELL_S: f64 = 8.0;
/// To the next hole, s (E).
const CHANGE_S: f64 = 3.0;
/// A recipe has no more passes than this before its last.
const MOST_HOLES: usize = 10;

/// See the head of this file.
#[derive(Debug)]
pub struct Pump;

static WORDS: Words = Words {
    name: "Pump or vacuum iron",
    how: "Each leg is heated until its far side runs and the hole is sucked empty; the part then lifts out by hand.",
    danger: "square legs touching the barrel: pulled barrels",
    early: &[
        "A leg does not move sideways when nudged: fill that hole again and suck once more.",
        "The tip stands on a hole for longer than ten seconds: a plate below, or more solder.",
    ],
    clean_up: "Done on the way: what is left is a film; braid the lands.",
    heat: &["Fresh solder on the leg, tip flat, wait for the far side to run, then suck; nudge the leg while it cools."],
    cue: "Light shows through every hole round its leg; each leg moves free.",
    not_coming: &["Add solder and suck again.", "A plate below.", "Air from below to finish."],
    cautions: &[Caution::Burns, Caution::Fumes, Caution::Lead],
    level: Level::Learning,
};

impl Method for Pump {
    fn family(&self) -> Family {
        Family::Pump
    }

    fn words(&self) -> &'static Words {
        &WORDS
    }

    fn fit(&self, subject: &Subject<'_>) -> Fit {
        let (joints, holes) = (subject.joints().len(), subject.holes());
        Fit::default()
            .not(subject.means.tips.is_empty(), "no iron tip in the shop")
            .not(subject.means.sucker == Sucker::None, "neither pump nor vacuum iron in the shop")
            .not(holes == 0, "no plated hole to empty")
            .not(holes > 0 && holes < joints, format!("{} surface joints do not come with a pump", joints - holes))
            .not(holes > MOST_HOLES, format!("{holes} holes, one by one: too many to get all of them empty"))
            .good(holes == joints, "every joint is a hole: none need be liquid with another")
            .good(subject.is_shy(), "the part's body stays cool: only one leg is hot at a time")
            .mind(subject.is_heavy(), "planes draw the heat off each barrel: the far side may not run")
    }

    fn starts(&self, subject: &Subject<'_>) -> Vec<Start> {
        let leaded = subject.means.leaded().next().and_then(|alloy| fed(subject, alloy));
        let charge = leaded.unwrap_or_else(|| unfed(subject.charge));
        let start = |plate: bool| {
            let plate = plate.then(|| super::usual::plate(subject.board));
            let tip = subject.means.stoutest().unwrap_or(Length::mm(2.0));
            let on = |name: &str| {
                let iron = Some(Iron { set: Temperature::celsius(380.0), tip, row: name.to_owned() });
                Helpers { plate, iron }
            };
            let lasts = (Duration::seconds(DWELL_S), Duration::seconds(CHANGE_S));
            let pass = |name: &str| Pass { air: None, with: on(name), lasts: lasts.0, change: lasts.1 };
            let (last, first) = subject.joints().split_last()?;
            let warm = plate.map(|_| super::usual::warm(Helpers { plate, iron: None }));
            let before = warm.into_iter().chain(first.iter().map(|joint| pass(&joint.name))).collect();
            let longest = Duration::seconds(20.0);
            let recipe = Recipe { before, longest, ..Recipe::from(on(&last.name)) };
            Some(Start { charge: charge.clone(), recipe, vary: irons(subject.means) })
        };
        let plates: &[bool] = if subject.means.plate { &[false, true] } else { &[false] };
        plates.iter().filter_map(|plate| start(*plate)).collect()
    }
}
