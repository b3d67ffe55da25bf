//! The next best move: single changes of a recipe that does not work well, each run once on the screening grid; those that
//! leave most room again over half of the samples; and of these the one that works most often, then with most time to spare.
//! (Judged by the nominal run alone it used to propose changes that left more room and melted in time less often.)

use std::borrow::Cow;
use std::cmp::Ordering;

use rayon::prelude::*;
use serde::{Deserialize, Serialize};

use super::band::quantile;
use super::limits::{Harm, Limit, Watched, first_harm, in_time, limits};
use super::outcome::Outcome;
use super::plan::Order;
use crate::heat::iron::Iron;
use crate::heat::mesh::Resolution;
use crate::heat::recipe::{Helpers, Recipe};
use crate::heat::run::{Case, Run, run_until};
use crate::heat::shield::ShieldKind;
use crate::heat::tool::HotAir;
use crate::heat::unknowns::Unknowns;
use crate::method::usual::{self, FROM_BELOW_MM};
use crate::units::{Flow, Length, Temperature};

/// A change that works as often and gains less time than this is none, s (E: a hand's pause).
const WORTH_S: f64 = 4.0;
/// As stout as tips are usually owned, mm (E).
const STOUT_TIP_MM: f64 = 6.0;
/// So many changes are run over samples, and so many samples: half of a plan's.
const FINALISTS: usize = 5;
const HALF: usize = 10;
/// About as many are tried: their share of the whole work.
pub(super) const MOVES: usize = 16;

/// A change and what it would bring.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
pub struct Move {
    /// What to do, as a phrase.
    pub what: String,
    /// What comes of it, in words.
    pub brings: String,
    /// The whole recipe with it.
    pub recipe: Recipe,
    /// The tightest margin as computed, K; negative: still passed, or not molten.
    pub margin_k: f64,
}

/// A run of a recipe on the screening grid, against its limits.
struct Trial<'a> {
    run: Cow<'a, Run>,
    limits: Cow<'a, [Limit]>,
}

/// How a recipe does over half of the samples.
#[derive(Debug, Clone, Copy, PartialEq, PartialOrd)]
struct Odds {
    /// Share of them that melt before anything is hurt.
    chance: f64,
    /// From where nine in ten have melted to where one in ten is hurt, s.
    slack_s: f64,
}

/// The best single change, if one is worth it.
pub(super) fn next_move(outcome: &Outcome<'_>) -> Option<Move> {
    let (order, case) = (outcome.order, &outcome.case);
    let nominal = Unknowns::nominal(&case.board.stack);
    let of_outcome = |run| Trial { run: Cow::Borrowed(run), limits: Cow::Borrowed(&outcome.limits) };
    let now = of_outcome(&outcome.coarse);
    let tried = moves(order, &now).into_par_iter().map(|(what, recipe)| {
        let trial = Trial::of(order, case, (&recipe, &nominal));
        case.watch.one_done();
        (what, recipe, trial)
    });
    let mut tried: Vec<(String, Recipe, Trial<'_>)> = tried.collect();
    tried.sort_by(|a, b| b.2.room_k().total_cmp(&a.2.room_k()));
    tried.truncate(FINALISTS);
    // The first samples are the same however many there are: the outcome has run these already.
    let before: Vec<Trial<'_>> = outcome.samples[..HALF].iter().map(of_outcome).collect();
    let before = Odds::of(&before, order.recipe);
    let samples = Unknowns::samples(HALF, case.station, &case.board.stack);
    let judged = tried.into_par_iter().map(|tried| {
        let trials = samples.par_iter().map(|unknowns| Trial::of(order, case, (&tried.1, unknowns)));
        (Odds::of(&trials.collect::<Vec<_>>(), &tried.1), tried)
    });
    let judged: Vec<(Odds, (String, Recipe, Trial<'_>))> = judged.collect();
    let best = judged.into_iter().max_by(|a, b| a.0.partial_cmp(&b.0).unwrap_or(Ordering::Equal))?;
    let (odds, (what, recipe, trial)) = best;
    let worth =
        odds.chance > before.chance || (odds.chance == before.chance && odds.slack_s > before.slack_s + WORTH_S);
    let brings = format!("{}; in time in {:.0} of 10", trial.brings(&now), odds.chance * 10.0);
    (worth && odds.chance > 0.0).then(|| Move { brings, what, margin_k: trial.room_k(), recipe })
}

impl Odds {
    fn of(trials: &[Trial<'_>], recipe: &Recipe) -> Self {
        let end = recipe.seconds() as f64;
        let harms: Vec<Option<Harm>> = trials.iter().map(|t| first_harm(&t.limits, &t.run.traces)).collect();
        let works = trials.iter().zip(&harms).filter(|(t, harm)| in_time(&t.run, harm.as_ref())).count();
        let sorted = |mut times: Vec<f64>| {
            times.sort_by(f64::total_cmp);
            times
        };
        // What never melts counts as melting long after the end.
        let releases = sorted(trials.iter().map(|t| t.run.release.unwrap_or(2.0 * end)).collect());
        let harms = sorted(harms.iter().map(|harm| harm.as_ref().map_or(end, |harm| harm.at_s)).collect());
        let slack_s = quantile(&harms, 0.1).unwrap_or(0.0) - quantile(&releases, 0.9).unwrap_or(0.0);
        Self { chance: works as f64 / trials.len() as f64, slack_s }
    }
}

impl Trial<'_> {
    fn of(order: &Order<'_>, case: &Case<'_>, (recipe, unknowns): (&Recipe, &Unknowns)) -> Self {
        let case = Case { recipe, ..*case };
        let limits = limits(&Order { recipe, ..*order }, &case);
        let run = run_until(&case, unknowns, Resolution::COARSE, &|run| first_harm(&limits, &run.traces).is_some());
        Self { run: Cow::Owned(run), limits: Cow::Owned(limits) }
    }

    /// Hottest that a thing gets until release, °C.
    fn hottest(&self, watched: Watched) -> f64 {
        let off = self.run.release.map_or(self.run.traces.len(), |t| t.ceil() as usize + 1);
        f64::from(watched.curve(&self.run.traces).iter().take(off).copied().fold(f32::MIN, f32::max))
    }

    /// The limit that is tightest at release, of those that count at once, and the room to it, K.
    fn tightest(&self) -> Option<(&Limit, f64)> {
        let at_once = self.limits.iter().filter(|limit| limit.stands_s == 0);
        let rooms = at_once.map(|limit| (limit, limit.celsius - self.hottest(limit.watched)));
        rooms.min_by(|a, b| a.1.total_cmp(&b.1))
    }

    /// Room to the tightest limit at release, K. Not released: 100 K off and what the coldest joint lacks.
    fn room_k(&self) -> f64 {
        if self.run.release.is_some() {
            return self.tightest().map_or(f64::INFINITY, |(_, room)| room);
        }
        let joints = self.run.melts_at.iter().zip(&self.run.traces.joints);
        let lacks = joints.map(|(melts_at, curve)| melts_at - f64::from(curve.last().copied().unwrap_or(0.0)));
        -100.0 - lacks.fold(0.0, f64::max)
    }

    fn brings(&self, now: &Self) -> String {
        let Some(release) = self.run.release else { return "it comes nearer, and still does not melt".to_owned() };
        let after = format!("it comes away after about {:.0} s", (release - self.run.last_from).max(0.0));
        // What was in the way is named; where nothing was, what is tightest now.
        let in_the_way = now.tightest().filter(|_| now.room_k() > -100.0 && now.room_k() < 30.0);
        let Some((limit, _)) = in_the_way.or(self.tightest()) else { return after };
        let (name, hottest) = (&limit.whose, self.hottest(limit.watched));
        match self.room_k() > 0.0 {
            true => format!("{name} stays under {:.0} °C, {after}", (hottest / 5.0).ceil() * 5.0),
            false => format!("{name} gets to {hottest:.0} °C, {after}"),
        }
    }
}

type Change = (String, Recipe);

/// Every single change worth trying, with what to call it.
fn moves(order: &Order<'_>, now: &Trial<'_>) -> Vec<Change> {
    let mut moves = single_changes(order);
    moves.extend(shields(order, now));
    moves
}

/// Settings, faces, tips and soaks: what can be changed without knowing how the present plan does.
pub(super) fn single_changes(order: &Order<'_>) -> Vec<Change> {
    let mut moves = Vec::new();
    if let Some(air) = &order.recipe.air {
        moves.extend(settings(order, air));
        moves.extend(faces(order, air));
    } else if let Some(iron) = &order.recipe.with.iron {
        moves.extend(tips(order, iron));
    }
    moves.extend(soaks(order));
    moves
}

fn blown(order: &Order<'_>, what: String, air: HotAir) -> Change {
    (what, Recipe { air: Some(air), ..order.recipe.clone() })
}

/// The air a little hotter, cooler, stronger, weaker; every other outlet.
fn settings(order: &Order<'_>, air: &HotAir) -> Vec<Change> {
    let station = order.station;
    let with = |what: String, air: HotAir| blown(order, what, air);
    let (low, high) = station.set_range;
    let sets = [-40.0, -20.0, 20.0, 40.0].map(|by| Temperature::celsius(air.set.in_celsius() + by));
    let sets = sets.into_iter().filter(|set| (low..=high).contains(set));
    let sets = sets.map(|set| with(format!("air at {:.0} °C", set.in_celsius()), HotAir { set, ..*air }));
    let (weak, strong) = station.flow_range;
    let flows = [0.6, 0.8, 1.25].map(|by| Flow::litres_per_minute((air.flow.in_litres_per_minute() * by).round()));
    let flows = flows.into_iter().filter(|flow| (weak..=strong).contains(flow));
    let flows = flows.map(|flow| with(format!("{} L/min", flow.in_litres_per_minute()), HotAir { flow, ..*air }));
    let nozzles = station.nozzles.iter().filter(|n| (n.in_mm() - air.nozzle.in_mm()).abs() > 0.05);
    let nozzles =
        nozzles.map(|nozzle| with(format!("the {} mm outlet", nozzle.in_mm()), HotAir { nozzle: *nozzle, ..*air }));
    sets.chain(flows).chain(nozzles).collect()
}

/// The same air on the other face; from below with the widest outlet.
fn faces(order: &Order<'_>, air: &HotAir) -> Vec<Change> {
    let face = air.face.other();
    if face != order.board.hanging() {
        return vec![blown(order, format!("from above, onto the {} face", face.name()), HotAir { face, ..*air })];
    }
    let nozzle = usual::widest_outlet(order.station, air);
    let strong = order.station.flow_range.1.in_litres_per_minute();
    let distance = Length::mm(FROM_BELOW_MM);
    let below = |flow: f64| HotAir { face, nozzle, distance, flow: Flow::litres_per_minute(flow.round()), ..*air };
    let what = |flow: f64| {
        format!("from below at {FROM_BELOW_MM:.0} mm with the {} mm outlet, {flow:.0} L/min", nozzle.in_mm())
    };
    let flow = |share: f64| (strong * share).max(air.flow.in_litres_per_minute()).round();
    [0.7, 1.0].map(|share| blown(order, what(flow(share)), below(flow(share)))).into_iter().collect()
}

/// The tip hotter, cooler, or as stout as they come.
fn tips(order: &Order<'_>, iron: &Iron) -> Vec<Change> {
    let with = |what: String, iron: Iron| {
        let with = Helpers { iron: Some(iron), ..order.recipe.with.clone() };
        (what, Recipe { with, ..order.recipe.clone() })
    };
    let sets = [-20.0, 20.0, 40.0].map(|by| Temperature::celsius(iron.set.in_celsius() + by));
    let sets = sets.map(|set| with(format!("the iron at {:.0} °C", set.in_celsius()), Iron { set, ..iron.clone() }));
    let stout = Length::mm(STOUT_TIP_MM);
    let stouter =
        (iron.tip < stout).then(|| with(format!("a {STOUT_TIP_MM:.0} mm tip"), Iron { tip: stout, ..iron.clone() }));
    sets.into_iter().chain(stouter).collect()
}

/// A soak before: the bare outlet from below, or a plate that stays on.
fn soaks(order: &Order<'_>) -> Vec<Change> {
    let recipe = order.recipe;
    let with = Helpers { plate: Some(usual::plate(order.board)), ..recipe.with.clone() };
    let warm = usual::warm(Helpers { iron: None, ..with.clone() });
    let mut changes = Vec::new();
    if let Some(air) = recipe.air.filter(|_| recipe.before.is_empty()) {
        let soak = usual::soak((order.board, order.station), &air);
        let set = soak.air.map_or(0.0, |air| air.set.in_celsius());
        let what = format!("soak from below for {:.0} s at {set:.0} °C first", soak.lasts.in_seconds());
        changes.push((what, Recipe { before: vec![soak], ..recipe.clone() }));
    }
    if recipe.before.is_empty() && recipe.with.plate.is_none() {
        let what = "a plate at 180 °C below, two minutes ahead".to_owned();
        changes.push((what, Recipe { before: vec![warm], with, ..recipe.clone() }));
    }
    changes
}

/// A shield over the neighbour that is tightest.
fn shields(order: &Order<'_>, now: &Trial<'_>) -> Vec<Change> {
    let watched = now.tightest().map(|(limit, _)| limit.watched);
    let Some(Watched::Neighbour(k) | Watched::OwnJoints(k)) = watched else { return Vec::new() };
    let neighbour = &order.board.neighbours[k];
    let over = |kind: ShieldKind| {
        let shield = usual::shield_over(order.board, neighbour, kind)?;
        let mut recipe = order.recipe.clone();
        recipe.shields.push(shield);
        Some((format!("{} over {}", kind.name(), neighbour.name), recipe))
    };
    [usual::TAPE, usual::TENT, usual::BLOCK].into_iter().filter_map(over).collect()
}
