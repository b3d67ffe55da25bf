//! The next best move: single changes of a recipe that does not work well, each run once on the screening grid; those that
//! leave most headroom again over half of the samples; and of these the one that works most often, then with most time to spare.
//! (Judged by the nominal run alone it used to propose changes that left more headroom and melted in time less often.)

use std::borrow::Cow;
use std::cmp::Ordering;

use rayon::prelude::*;
use serde::{Deserialize, Serialize};

use super::band::quantile;
use super::change::Change;
use super::damaged::{Damage, Damaged};
use super::limits::{Limit, LimitSubject, first_damage_of, in_time, limits};
use super::order::Order;
use super::runs::{FINALISTS, PlanRuns, TRIED_SAMPLES};
use super::single_changes::{ProposedRecipe, single_changes};
use crate::heat::case::Case;
use crate::heat::ensemble::run_all;
use crate::heat::mesh::Resolution;
use crate::heat::parameters::ParameterSample;
use crate::heat::recipe::Recipe;
use crate::heat::run::{Run, run_until};
use crate::heat::shield::ShieldKind;
use crate::method::usual;

/// A change that works as often and gains less time than this is none, s (E: a hand's pause).
const WORTH_S: f64 = 4.0;

/// A change and what it would bring.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
pub struct Move {
    /// What to do.
    pub what: Change,
    /// What comes of it.
    pub brings: MoveEffect,
    /// The whole recipe with it.
    pub recipe: Recipe,
    /// The tightest margin as computed, K; negative: still passed, or not molten.
    pub headroom_k: f64,
}

/// What comes of a change.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[serde(untagged)]
pub enum MoveEffect {
    /// As found.
    Found {
        /// Time to release, s of the last stage; none: it comes nearer, and still does not melt.
        release_s: Option<f64>,
        /// What was in the way, or is tightest now.
        hottest: Option<Hottest>,
        /// In how many samples of ten everything melts before anything is damaged.
        in_time_of_ten: f64,
    },
    /// As an older plan wrote it.
    Written(String),
}

/// How hot something gets until release.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
pub struct Hottest {
    /// What.
    pub of: Damaged,
    /// Its highest, °C.
    pub celsius: f64,
    /// Does everything stay below its limit?
    pub stays_below: bool,
}

/// A run of a recipe on the screening grid, against its limits.
struct Trial<'a> {
    run: Cow<'a, Run>,
    limits: Cow<'a, [Limit]>,
}

/// How a recipe does over half of the samples.
#[derive(Debug, Clone, Copy, PartialEq, PartialOrd)]
struct Odds {
    /// Share of them that melt before anything is damaged.
    chance: f64,
    /// From where nine in ten have melted to where one in ten is damaged, s.
    slack_s: f64,
}

/// The best single change, if one is worth it.
pub(super) fn next_move(outcome: &PlanRuns<'_>) -> Option<Move> {
    let (order, case) = (outcome.order, &outcome.case);
    let nominal = ParameterSample::middle(case);
    let of_outcome = |run| Trial { run: Cow::Borrowed(run), limits: Cow::Borrowed(&outcome.limits) };
    let now = of_outcome(&outcome.coarse);
    let tried = moves(order, &now).into_par_iter().map(|(what, recipe)| {
        let trial = Trial::run(order, case, &recipe, &nominal);
        case.watch.one_done();
        (what, recipe, trial)
    });
    let mut tried: Vec<(Change, Recipe, Trial<'_>)> = tried.collect();
    tried.sort_by(|a, b| b.2.headroom_k().total_cmp(&a.2.headroom_k()));
    tried.truncate(FINALISTS);
    // Some of the outcome's own samples, which are run already.
    let some = || outcome.samples.iter().step_by(outcome.samples.len() / TRIED_SAMPLES);
    let present: Vec<Trial<'_>> = some().map(of_outcome).collect();
    let present = Odds::from_trials(&present, order.recipe);
    let samples: Vec<ParameterSample> = some().map(|run| run.parameters).collect();
    let judged = tried.into_par_iter().map(|tried| {
        let trials = Trial::run_all(order, case, &tried.1, &samples);
        (Odds::from_trials(&trials, &tried.1), tried)
    });
    let judged: Vec<(Odds, (Change, Recipe, Trial<'_>))> = judged.collect();
    let best = judged.into_iter().max_by(|a, b| a.0.partial_cmp(&b.0).unwrap_or(Ordering::Equal))?;
    let (odds, (what, recipe, trial)) = best;
    let worth =
        odds.chance > present.chance || (odds.chance == present.chance && odds.slack_s > present.slack_s + WORTH_S);
    let brings = trial.brings(&now, odds.chance);
    (worth && odds.chance > 0.0).then(|| Move { brings, what, headroom_k: trial.headroom_k(), recipe })
}

impl Odds {
    fn from_trials(trials: &[Trial<'_>], recipe: &Recipe) -> Self {
        let end = recipe.seconds() as f64;
        let damages: Vec<Option<Damage>> = trials.iter().map(|t| first_damage_of(&t.limits, &t.run)).collect();
        let works = trials.iter().zip(&damages).filter(|(t, damage)| in_time(&t.run, damage.as_ref())).count();
        let sorted = |mut times: Vec<f64>| {
            times.sort_by(f64::total_cmp);
            times
        };
        // What never melts counts as melting long after the end.
        let releases = sorted(trials.iter().map(|t| t.run.release.unwrap_or(2.0 * end)).collect());
        let damages = sorted(damages.iter().map(|damage| damage.as_ref().map_or(end, |damage| damage.at_s)).collect());
        let slack_s = quantile(&damages, 0.1).unwrap_or(0.0) - quantile(&releases, 0.9).unwrap_or(0.0);
        Self { chance: works as f64 / trials.len() as f64, slack_s }
    }
}

impl Trial<'_> {
    fn run(order: &Order<'_>, case: &Case<'_>, recipe: &Recipe, parameters: &ParameterSample) -> Self {
        let case = Case { recipe, ..*case };
        let limits = limits(&Order { recipe, ..*order }, &case);
        let run = run_until(&case, parameters, Resolution::COARSE, &|run| first_damage_of(&limits, run).is_some());
        Self { run: Cow::Owned(run), limits: Cow::Owned(limits) }
    }

    fn run_all(order: &Order<'_>, case: &Case<'_>, recipe: &Recipe, samples: &[ParameterSample]) -> Vec<Self> {
        let case = Case { recipe, ..*case };
        let limits = limits(&Order { recipe, ..*order }, &case);
        let runs = run_all(&case, samples, &|run| first_damage_of(&limits, run).is_some());
        runs.into_iter().map(|run| Self { run: Cow::Owned(run), limits: Cow::Owned(limits.clone()) }).collect()
    }

    /// Hottest that a thing gets until release, °C.
    fn hottest(&self, watched: LimitSubject) -> f64 {
        f64::from(watched.curve(&self.run.traces).iter().take(self.heated()).copied().fold(f32::MIN, f32::max))
    }

    /// Seconds until release.
    fn heated(&self) -> usize {
        self.run.release.map_or(self.run.traces.len(), |t| t.ceil() as usize + 1)
    }

    /// The limit that is tightest at release, and what is left of it, K.
    fn tightest(&self) -> Option<(&Limit, f64)> {
        let rooms = self.limits.iter().map(|limit| (limit, limit.headroom(&self.run.traces, self.heated())));
        rooms.min_by(|a, b| a.1.total_cmp(&b.1))
    }

    /// Room to the tightest limit at release, K. Not released: 100 K off and what the coldest joint lacks.
    fn headroom_k(&self) -> f64 {
        if self.run.release.is_some() {
            return self.tightest().map_or(f64::INFINITY, |(_, headroom)| headroom);
        }
        let joints = self.run.melts_at.iter().zip(&self.run.traces.joints);
        let lacks = joints.map(|(melts_at, curve)| melts_at - f64::from(curve.last().copied().unwrap_or(0.0)));
        -100.0 - lacks.fold(0.0, f64::max)
    }

    fn brings(&self, now: &Self, chance: f64) -> MoveEffect {
        let release_s = self.run.release.map(|release| (release - self.run.last_from).max(0.0));
        // What was in the way is named; where nothing was, what is tightest now.
        let in_the_way = now.tightest().filter(|_| now.headroom_k() > -100.0 && now.headroom_k() < 30.0);
        let named = in_the_way.or(self.tightest()).filter(|_| release_s.is_some());
        let hottest = named.map(|(limit, _)| Hottest {
            of: limit.of.clone(),
            celsius: self.hottest(limit.watched),
            stays_below: self.headroom_k() > 0.0,
        });
        MoveEffect::Found { release_s, hottest, in_time_of_ten: chance * 10.0 }
    }
}

/// Every single change worth trying.
fn moves(order: &Order<'_>, now: &Trial<'_>) -> Vec<ProposedRecipe> {
    let mut moves = single_changes(order);
    moves.extend(shields(order, now));
    moves
}

/// A shield over the component that is tightest.
fn shields(order: &Order<'_>, now: &Trial<'_>) -> Vec<ProposedRecipe> {
    let watched = now.tightest().map(|(limit, _)| limit.watched);
    let Some(LimitSubject::Component(k) | LimitSubject::OwnJoints(k)) = watched else { return Vec::new() };
    let component = &order.board.components[k];
    let over = |kind: ShieldKind| {
        let shield = usual::shield_over(order.board, component, kind)?;
        let mut recipe = order.recipe.clone();
        recipe.shields.push(shield);
        Some((Change::Shield { shield: kind, over: component.name.clone() }, recipe))
    };
    [usual::TAPE, usual::TENT, usual::BLOCK].into_iter().filter_map(over).collect()
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::example::Bench;
    use crate::heat::traces::Traces;
    use crate::planning::tolerance::Tolerance;

    /// A run that releases then, with a body that passes its limit then, if ever.
    fn trial(release: Option<f64>, damage: Option<usize>) -> Trial<'static> {
        let body = (0..200).map(|t| if damage.is_some_and(|at| t >= at) { 300.0 } else { 100.0 }).collect();
        let run = Run {
            parameters: ParameterSample::nominal(),
            melted: vec![release],
            melts_at: vec![217.0],
            release,
            last_from: 0.0,
            traces: Traces { body, joints: vec![vec![150.0; 200]], laminate: vec![100.0; 200], ..Traces::default() },
            cooling: None,
            faces: [vec![], vec![]],
        };
        let limit =
            Limit { of: Damaged::PartBody, watched: LimitSubject::Body, stands: Tolerance::Never { celsius: 250.0 } };
        Trial { run: Cow::Owned(run), limits: Cow::Owned(vec![limit]) }
    }

    #[test]
    fn odds_count_what_is_in_time_and_how_far_apart_melting_and_damage_lie() {
        let recipe = Bench::try_new().expect("the example").recipe;
        let odds = Odds::from_trials(&[trial(Some(40.0), None), trial(Some(60.0), Some(50))], &recipe);
        assert_eq!(odds.chance, 0.5);
        let never = Odds::from_trials(&[trial(None, None)], &recipe);
        assert!(never.slack_s < odds.slack_s && never.chance == 0.0, "{never:?} after {odds:?}");
    }

    #[test]
    fn headroom_is_that_of_the_tightest_limit_and_what_never_melts_lies_far_below() {
        assert_eq!(trial(Some(40.0), None).headroom_k(), 150.0);
        assert_eq!(trial(None, None).headroom_k(), -167.0, "a hundred, and the 67 K that the joint lacks");
    }

    #[test]
    fn what_a_move_brings_names_what_was_in_the_way() {
        let now = trial(Some(60.0), Some(50));
        let MoveEffect::Found { release_s, hottest, in_time_of_ten } = trial(Some(40.0), None).brings(&now, 0.9) else {
            panic!("found")
        };
        assert_eq!((release_s, in_time_of_ten), (Some(40.0), 9.0));
        let hottest = hottest.expect("the body was in the way");
        assert!(hottest.of == Damaged::PartBody && hottest.stays_below && hottest.celsius == 100.0, "{hottest:?}");
    }
}
