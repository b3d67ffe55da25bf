//! The next best move: single changes of a recipe that does not work well, each run once on the screening grid; those that
//! leave most room again over half of the samples; and of these the one that works most often, then with most time to spare.
//! (Judged by the nominal run alone it used to propose changes that left more room and melted in time less often.)

use std::cmp::Ordering;

use rayon::prelude::*;
use serde::{Deserialize, Serialize};

use super::band::quantile;
use super::limits::{Limit, Watched, first_harm, limits};
use super::loose::hanging;
use super::plan::Order;
use super::rules::covered_joints;
use crate::board::{Board, Neighbour, Rect};
use crate::heat::mesh::Resolution;
use crate::heat::plate::{Coupling, Plate};
use crate::heat::recipe::{Helpers, Pass, Recipe};
use crate::heat::run::{Case, Run, run_until};
use crate::heat::shield::{Shield, ShieldKind};
use crate::heat::tool::HotAir;
use crate::heat::unknowns::Unknowns;
use crate::units::{Duration, Flow, Length, Temperature};

/// A change that works as often and gains less time than this is none, s (E: a hand's pause).
const WORTH_S: f64 = 4.0;
/// So many changes are run over samples, and so many samples: half of a plan's.
const FINALISTS: usize = 5;
const HALF: usize = 10;
/// About as many are tried: their share of the whole work.
pub(super) const MOVES: usize = 16;
/// A shield reaches this far beyond what it covers, mm (E).
const OVERLAP_MM: f64 = 1.5;
/// From below, mm (E, common practice with a bare outlet).
const FROM_BELOW_MM: f64 = 25.0;

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

/// How a recipe does on the screening grid.
struct Trial {
    run: Run,
    limits: Vec<Limit>,
    /// Room to the tightest limit at release, K. Not released: 100 K off and what the coldest joint lacks.
    room_k: f64,
    /// The limit that is tightest, if there is one.
    tightest: Option<usize>,
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
pub(super) fn next_move(order: &Order<'_>, case: &Case<'_>) -> Option<Move> {
    let now = Trial::of(order, case, (order.recipe, &Unknowns::nominal(&case.board.stack)));
    let tried = moves(order, &now).into_par_iter().map(|(what, recipe)| {
        let trial = Trial::of(order, case, (&recipe, &Unknowns::nominal(&case.board.stack)));
        case.watch.one_done();
        (what, recipe, trial)
    });
    let mut tried: Vec<(String, Recipe, Trial)> = tried.collect();
    tried.sort_by(|a, b| b.2.room_k.total_cmp(&a.2.room_k));
    tried.truncate(FINALISTS);
    let before = Odds::of(order, case, order.recipe);
    let judged = tried.into_par_iter().map(|tried| (Odds::of(order, case, &tried.1), tried));
    let judged: Vec<(Odds, (String, Recipe, Trial))> = judged.collect();
    let best = judged.into_iter().max_by(|a, b| a.0.partial_cmp(&b.0).unwrap_or(Ordering::Equal))?;
    let (odds, (what, recipe, trial)) = best;
    let worth =
        odds.chance > before.chance || (odds.chance == before.chance && odds.slack_s > before.slack_s + WORTH_S);
    let brings = format!("{}; in time in {:.0} of 10", trial.brings(&now), odds.chance * 10.0);
    (worth && odds.chance > 0.0).then_some(Move { brings, what, margin_k: trial.room_k, recipe })
}

impl Odds {
    fn of(order: &Order<'_>, case: &Case<'_>, recipe: &Recipe) -> Self {
        let samples = Unknowns::samples(HALF, case.station, &case.board.stack);
        let trials: Vec<Trial> =
            samples.par_iter().map(|unknowns| Trial::of(order, case, (recipe, unknowns))).collect();
        let end = recipe.seconds() as f64;
        let harm = |trial: &Trial| first_harm(&trial.limits, &trial.run.traces).map_or(end, |harm| harm.at_s);
        let works = trials.iter().filter(|t| t.run.release.is_some_and(|release| release <= harm(t))).count();
        let sorted = |mut times: Vec<f64>| {
            times.sort_by(f64::total_cmp);
            times
        };
        // What never melts counts as melting long after the end.
        let releases = sorted(trials.iter().map(|t| t.run.release.unwrap_or(2.0 * end)).collect());
        let harms = sorted(trials.iter().map(harm).collect());
        let slack_s = quantile(&harms, 0.1).unwrap_or(0.0) - quantile(&releases, 0.9).unwrap_or(0.0);
        Self { chance: works as f64 / trials.len() as f64, slack_s }
    }
}

impl Trial {
    fn of(order: &Order<'_>, case: &Case<'_>, (recipe, unknowns): (&Recipe, &Unknowns)) -> Self {
        let case = Case { recipe, ..*case };
        let limits = limits(&Order { recipe, ..*order }, &case);
        let harmed = |run: &Run| first_harm(&limits, &run.traces).is_some();
        let run = run_until(&case, unknowns, Resolution::COARSE, &harmed);
        let off = run.release.map_or(run.traces.len(), |t| t.ceil() as usize + 1);
        let room = |limit: &Limit| {
            let curve = limit.watched.curve(&run.traces);
            let hottest = curve.iter().take(off).copied().fold(f32::MIN, f32::max);
            limit.celsius - f64::from(hottest)
        };
        let rooms: Vec<f64> = limits.iter().filter(|l| l.stands_s == 0).map(room).collect();
        let tightest = (0..rooms.len()).min_by(|a, b| rooms[*a].total_cmp(&rooms[*b]));
        let lacks = |k: usize| run.melts_at[k] - f64::from(run.traces.joints[k].last().copied().unwrap_or(0.0));
        let coldest = (0..run.melts_at.len()).map(lacks).fold(0.0, f64::max);
        let room_k = match run.release {
            Some(_) => tightest.map_or(f64::INFINITY, |k| rooms[k]),
            None => -100.0 - coldest,
        };
        Self { room_k, tightest, limits, run }
    }

    /// Hottest that a thing gets until release, °C.
    fn hottest(&self, watched: Watched) -> f64 {
        let off = self.run.release.map_or(self.run.traces.len(), |t| t.ceil() as usize + 1);
        let curve = watched.curve(&self.run.traces).iter().take(off);
        f64::from(curve.copied().fold(f32::MIN, f32::max))
    }

    fn brings(&self, now: &Self) -> String {
        let Some(release) = self.run.release else { return "it comes nearer, and still does not melt".to_owned() };
        let after = format!("it comes away after about {:.0} s", (release - self.run.last_from).max(0.0));
        // What was in the way is named; where nothing was, what is tightest now.
        let of = now.tightest.map(|k| &now.limits[k]).filter(|_| now.room_k > -100.0 && now.room_k < 30.0);
        let of = of.or(self.tightest.map(|k| &self.limits[k]));
        let stays = of.map(|limit| {
            let (hottest, stays) = (self.hottest(limit.watched), if self.room_k > 0.0 { "stays" } else { "gets to" });
            let round = if self.room_k > 0.0 { (hottest / 5.0).ceil() * 5.0 } else { hottest };
            let under = if self.room_k > 0.0 { " under" } else { "" };
            format!("{} {stays}{under} {round:.0} °C", limit.name.split(',').next().unwrap_or_default())
        });
        stays.map_or(after.clone(), |stays| format!("{stays}, {after}"))
    }
}

type Change = (String, Recipe);

/// Every single change worth trying, with what to call it.
fn moves(order: &Order<'_>, now: &Trial) -> Vec<Change> {
    let mut moves = settings(order);
    moves.extend(faces(order));
    moves.extend(soaks(order));
    moves.extend(shields(order, now));
    moves
}

/// The air a little hotter, cooler, stronger, weaker; every other outlet.
fn settings(order: &Order<'_>) -> Vec<Change> {
    let (recipe, station) = (order.recipe, order.station);
    let with = |what: String, air: HotAir| (what, Recipe { air, ..recipe.clone() });
    let (low, high) = station.set_range;
    let sets = [-40.0, -20.0, 20.0, 40.0].map(|by| Temperature::celsius(recipe.air.set.in_celsius() + by));
    let sets = sets.into_iter().filter(|set| (low..=high).contains(set));
    let sets = sets.map(|set| with(format!("air at {:.0} °C", set.in_celsius()), HotAir { set, ..recipe.air }));
    let (weak, strong) = station.flow_range;
    let flows =
        [0.6, 0.8, 1.25].map(|by| Flow::litres_per_minute((recipe.air.flow.in_litres_per_minute() * by).round()));
    let flows = flows.into_iter().filter(|flow| (weak..=strong).contains(flow));
    let flows = flows.map(|flow| with(format!("{} L/min", flow.in_litres_per_minute()), HotAir { flow, ..recipe.air }));
    let nozzles = station.nozzles.iter().filter(|n| (n.in_mm() - recipe.air.nozzle.in_mm()).abs() > 0.05);
    let nozzles = nozzles
        .map(|nozzle| with(format!("the {} mm outlet", nozzle.in_mm()), HotAir { nozzle: *nozzle, ..recipe.air }));
    sets.chain(flows).chain(nozzles).collect()
}

fn widest(order: &Order<'_>) -> Length {
    order.station.nozzles.iter().copied().fold(order.recipe.air.nozzle, |a, b| if b > a { b } else { a })
}

/// The same air on the other face; from below with the widest outlet.
fn faces(order: &Order<'_>) -> Vec<Change> {
    let recipe = order.recipe;
    let face = recipe.air.face.other();
    if face != hanging(order.board) {
        let what = format!("from above, onto the {} face", face.name());
        return vec![(what, Recipe { air: HotAir { face, ..recipe.air }, ..recipe.clone() })];
    }
    let (nozzle, strong) = (widest(order), order.station.flow_range.1.in_litres_per_minute());
    let distance = Length::mm(FROM_BELOW_MM);
    let air = |flow: f64| HotAir { face, nozzle, distance, flow: Flow::litres_per_minute(flow.round()), ..recipe.air };
    let what = |flow: f64| {
        format!("from below at {FROM_BELOW_MM:.0} mm with the {} mm outlet, {flow:.0} L/min", nozzle.in_mm())
    };
    let flow = |share: f64| (strong * share).max(recipe.air.flow.in_litres_per_minute()).round();
    [0.7, 1.0]
        .map(|share| (what(flow(share)), Recipe { air: air(flow(share)), ..recipe.clone() }))
        .into_iter()
        .collect()
}

/// A soak before: the bare outlet from below, or a plate that stays on.
fn soaks(order: &Order<'_>) -> Vec<Change> {
    let recipe = order.recipe;
    let face = hanging(order.board);
    let flow = Flow::litres_per_minute((order.station.flow_range.1.in_litres_per_minute() * 0.8).round());
    let set = Temperature::celsius(recipe.air.set.in_celsius().min(350.0).max(order.station.set_range.0.in_celsius()));
    let (nozzle, distance) = (widest(order), Length::mm(FROM_BELOW_MM));
    let below = HotAir { set, flow, nozzle, distance, face, aim: [0.0, 0.0], motion: recipe.air.motion };
    let lasts = Duration::seconds(45.0);
    let soak = Pass { air: Some(below), with: Helpers::default(), lasts, change: Duration::seconds(5.0) };
    let plate = Plate { set: Temperature::celsius(180.0), coupling: Coupling::Gap, face, side: Length::mm(120.0) };
    let with = Helpers { plate: Some(plate), ..recipe.with.clone() };
    let warm = Pass { air: None, with: with.clone(), lasts: Duration::seconds(120.0), change: Duration::seconds(0.0) };
    let mut changes = Vec::new();
    if recipe.before.is_empty() {
        let what = format!("soak from below for 45 s at {:.0} °C first", set.in_celsius());
        changes.push((what, Recipe { before: vec![soak], ..recipe.clone() }));
    }
    if recipe.before.is_empty() && recipe.with.plate.is_none() {
        let what = "a plate at 180 °C below, two minutes ahead".to_owned();
        changes.push((what, Recipe { before: vec![warm], with, ..recipe.clone() }));
    }
    changes
}

/// A shield over the neighbour that is tightest.
fn shields(order: &Order<'_>, now: &Trial) -> Vec<Change> {
    let watched = now.tightest.map(|k| now.limits[k].watched);
    let Some(Watched::Neighbour(k) | Watched::OwnJoints(k)) = watched else { return Vec::new() };
    let neighbour = &order.board.neighbours[k];
    let tape = ShieldKind::Polyimide { layers: 3 };
    let kinds = [tape, ShieldKind::FoilTent { gap_mm: 2.0 }, ShieldKind::MetalBlock { height_mm: 5.0 }];
    let over = |kind: ShieldKind| {
        let shield = shield_over(order.board, neighbour, kind)?;
        let mut recipe = order.recipe.clone();
        recipe.shields.push(shield);
        Some((format!("{} over {}", kind.name(), neighbour.name), recipe))
    };
    kinds.into_iter().filter_map(over).collect()
}

/// A shield of a kind over a neighbour with a little overlap, drawn back to its body where that would cover a joint of the
/// part; none where even that does.
pub fn shield_over(board: &Board, neighbour: &Neighbour, kind: ShieldKind) -> Option<Shield> {
    let of = |overlap: f64| {
        let Rect { centre, width, depth } = neighbour.body;
        let (width_mm, depth_mm) = (width + 2.0 * overlap, depth + 2.0 * overlap);
        Shield { kind, face: neighbour.face, at_mm: [centre.x, centre.y], width_mm, depth_mm }
    };
    let free = |shield: &Shield| covered_joints(board, std::slice::from_ref(shield)).is_empty();
    [OVERLAP_MM, 0.0].map(of).into_iter().find(free)
}
