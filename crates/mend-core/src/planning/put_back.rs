//! A component that was knocked off goes back under a jet of its own: where it is aimed, how hot, how long; and what else melts
//! or is hurt until then. A small plan over two batches of samples, with the port in its place.
//!
//! The component lies on its tinned pads. It is soldered once the board under it is where the refit alloy is liquid, and a hand
//! takes the air away two seconds later.

use serde::{Deserialize, Serialize};

use super::band::{Band, TimeBand};
use super::damaged::Damaged;
use super::limits::{Limit, LimitSubject, first_damage_of, limits};
use super::order::{Order, Unplanned};
use crate::board::{Board, Component, JointGroup, groups};
use crate::heat::at_work::usual_blowing;
use crate::heat::draught::push;
use crate::heat::ensemble::run_all;
use crate::heat::mesh::Resolution;
use crate::heat::motion::Motion;
use crate::heat::parameters::ParameterSample;
use crate::heat::purpose::Purpose;
use crate::heat::recipe::Recipe;
use crate::heat::run::{Run, run};
use crate::heat::station::Station;
use crate::heat::tool::HotAir;
use crate::solder::MeltTarget;
use crate::units::{Duration, Flow, Length, Temperature};

/// Two batches: enough for a band of a few seconds.
const SAMPLES: usize = 16;
/// Nobody blows on one small part for longer, s (E).
const LONGEST_S: f64 = 60.0;
/// It is to be liquid within this in nine of ten, s: longer soaks what lies round it (E).
const WANTED_S: f64 = 45.0;
/// By the middle of what is guessed it is to be liquid within this, s: else nine of ten are not within the other.
const MIDDLE_S: f64 = 32.0;
/// From liquid to the air taken away, s (E).
const HAND_S: f64 = 2.0;
/// From the coolest to the hottest that is tried, K a step.
const STEP_K: f64 = 30.0;
/// A jet is set no cooler than this over the alloy's liquidus, K: the board under it would not get there (E).
const OVER_LIQUIDUS_K: f64 = 60.0;
/// Nozzle to board, mm (E, common practice for a small part).
const DISTANCE_MM: f64 = 10.0;
/// A joint that lets go in more than this share of the runs is named.
const OFTEN: f64 = 0.1;

/// How a component goes back.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
pub struct PutBack {
    /// Its name.
    pub component: String,
    /// What it is soldered with.
    pub alloy: String,
    /// The air, aimed at it.
    pub air: HotAir,
    /// When its joints are liquid, s.
    pub liquid: TimeBand,
    /// Share of the runs in which they are, and nothing is hurt until the air is away, 0-1.
    pub chance: f64,
    /// What is hurt first in the most of the other runs.
    pub hurts: Option<Damaged>,
    /// What is left of its own limit when the air goes, K; none where it never gets liquid.
    pub headroom_k: Option<Band>,
    /// Rows of the port of which a joint lets go by then.
    pub also_melts: Vec<String>,
    /// Must it be held down? Then the jet would push it off its pads.
    pub held: bool,
}

/// The small plan of a component, by its name; none where the board has no such component or it is not soldered.
///
/// ```
/// use mend_core::example::Bench;
/// use mend_core::planning::put_back::put_back;
/// let bench = Bench::try_new().expect("the example");
/// assert_eq!(put_back(&bench.order(), "no such thing").expect("computed"), None);
/// ```
pub fn put_back(order: &Order<'_>, name: &str) -> Result<Option<PutBack>, Unplanned> {
    let found = order.board.components.iter().position(|component| component.name == name);
    let Some(k) = found.filter(|k| order.board.components[*k].soldered() > 0.0) else { return Ok(None) };
    let Some(liquid_at) = MeltTarget::melted_of(&order.composition.refit) else { return Ok(None) };
    let sought = Sought { order, k, liquid_at };
    let mut best: Option<PutBack> = None;
    let airs = sought.airs();
    // One run tells which airs are too weak for a closer look; the strongest is looked at in any case.
    let quick: Vec<&HotAir> = airs.iter().filter(|air| sought.is_quick(air)).collect();
    for air in if quick.is_empty() { airs.last().into_iter().collect() } else { quick } {
        let tried = sought.tried(*air)?;
        let done = tried.liquid.high_s.is_some_and(|s| s <= WANTED_S);
        // The gentlest air that is quick enough; for want of one, what comes out best.
        if done || best.as_ref().is_none_or(|best| tried.chance > best.chance) {
            best = Some(tried);
        }
        if done {
            break;
        }
    }
    Ok(best)
}

/// Set temperatures that are tried, the coolest first.
fn sets(station: &Station, liquid_at: Temperature) -> Vec<Temperature> {
    let (coolest, hottest) = (station.set_range.0.in_celsius(), station.set_range.1.in_celsius());
    let from = (liquid_at.in_celsius() + OVER_LIQUIDUS_K).max(coolest).min(hottest);
    let steps = ((hottest - from) / STEP_K).floor() as usize;
    // In tens, never beyond what the station gives.
    let tens = |celsius: f64| ((celsius / 10.0).floor() * 10.0).max(coolest);
    (0..=steps).map(|k| Temperature::celsius(tens(from + STEP_K * k as f64))).collect()
}

/// What is sought for: a component of an order.
struct Sought<'a> {
    order: &'a Order<'a>,
    k: usize,
    liquid_at: Temperature,
}

impl Sought<'_> {
    fn component(&self) -> &Component {
        &self.order.board.components[self.k]
    }

    /// The narrowest nozzle upright over it, the gentlest first: the least flow at every set temperature, then more of it.
    fn airs(&self) -> Vec<HotAir> {
        let (low, high) = self.order.station.flow_range;
        let middle = (low.in_litres_per_minute() * high.in_litres_per_minute()).sqrt().round();
        let flows = [low, Flow::litres_per_minute(middle)];
        let sets = sets(self.order.station, self.liquid_at);
        flows.into_iter().flat_map(|flow| sets.iter().map(move |set| self.air(flow, *set))).collect()
    }

    fn air(&self, flow: Flow, set: Temperature) -> HotAir {
        let (board, station, at) = (self.order.board, self.order.station, self.component().body.centre);
        let narrowest = station.nozzles.iter().copied().reduce(|a, b| if b < a { b } else { a });
        let middle = board.connector.body.centre;
        HotAir {
            set,
            flow,
            nozzle: narrowest.unwrap_or(Length::mm(5.0)),
            distance: Length::mm(DISTANCE_MM),
            face: self.component().face,
            motion: Motion::Still,
            aim: [at.x - middle.x, at.y - middle.y],
            approach: None,
            tilt: None,
        }
    }

    /// Is it liquid in time by the middle of what is guessed?
    fn is_quick(&self, air: &HotAir) -> bool {
        let recipe = Recipe { longest: Duration::seconds(MIDDLE_S), ..Recipe::from(*air) };
        let order = Order { recipe: &recipe, purpose: Purpose::Fit, ..*self.order };
        let Ok(melting) = order.composition.targets(order.board) else { return false };
        let case = order.case(&melting);
        self.liquid(&run(&case, &ParameterSample::middle(&case), Resolution::COARSE)).is_some()
    }

    fn tried(&self, air: HotAir) -> Result<PutBack, Unplanned> {
        let recipe = Recipe { longest: Duration::seconds(LONGEST_S), ..Recipe::from(air) };
        let order = Order { recipe: &recipe, purpose: Purpose::Fit, ..*self.order };
        let melting = order.composition.targets(order.board)?;
        let case = order.case(&melting);
        let samples = ParameterSample::samples(SAMPLES, &case);
        // A run goes on until its component is hot enough: that the port lets go before ends nothing.
        let runs =
            run_all(&case, &samples, &|run| self.liquid(run).is_some_and(|s| s + HAND_S < run.traces.len() as f64));
        order.watch.wanted()?;
        let times: Vec<Option<f64>> = runs.iter().map(|run| self.liquid(run)).collect();
        let limits = self.others(limits(&order, &case));
        let judged: Vec<JudgedBlow> =
            runs.iter().zip(&times).map(|(run, at)| JudgedBlow::of(run, *at, &limits)).collect();
        let whole = judged.iter().filter(|judged| judged.liquid && judged.hurt.is_none()).count();
        let blowing = usual_blowing(order.station, &air, &order.board.connector.body);
        Ok(PutBack {
            component: self.component().name.clone(),
            alloy: order.composition.refit.name.clone(),
            air,
            liquid: TimeBand::from_times(&times, 1.0),
            chance: whole as f64 / SAMPLES as f64,
            hurts: most_often(judged.into_iter().filter_map(|judged| judged.hurt)),
            headroom_k: self.headroom(&runs, &times, &limits),
            also_melts: also_melts(order.board, &runs, &times),
            held: push(&blowing, self.component()) >= 0.5,
        })
    }

    /// When the board under it is where the alloy is liquid, s.
    fn liquid(&self, run: &Run) -> Option<f64> {
        let wanted = self.liquid_at.in_celsius() as f32;
        run.traces.own_joints[self.k].iter().position(|t| *t >= wanted).map(|second| second as f64)
    }

    /// That its own joints melt is what is wanted.
    fn others(&self, limits: Vec<Limit>) -> Vec<Limit> {
        limits.into_iter().filter(|limit| limit.watched != LimitSubject::OwnJoints(self.k)).collect()
    }

    fn headroom(&self, runs: &[Run], times: &[Option<f64>], limits: &[Limit]) -> Option<Band> {
        let own = limits.iter().find(|limit| limit.watched == LimitSubject::Component(self.k))?;
        let left =
            |(run, at): (&Run, &Option<f64>)| Some(own.headroom(&run.traces, (at.as_ref()? + HAND_S) as usize + 1));
        Band::from_values(&runs.iter().zip(times).filter_map(left).collect::<Vec<_>>())
    }
}

/// A run, judged up to the moment at which the air goes.
struct JudgedBlow {
    liquid: bool,
    hurt: Option<Damaged>,
}

impl JudgedBlow {
    fn of(run: &Run, at: Option<f64>, limits: &[Limit]) -> Self {
        let ends = at.unwrap_or(LONGEST_S) + HAND_S;
        let hurt = first_damage_of(limits, run).filter(|damage| damage.at_s <= ends).map(|damage| damage.to);
        Self { liquid: at.is_some(), hurt }
    }
}

fn most_often(hurt: impl Iterator<Item = Damaged>) -> Option<Damaged> {
    let mut counted: Vec<(Damaged, usize)> = Vec::new();
    for damaged in hurt {
        match counted.iter_mut().find(|(other, _)| *other == damaged) {
            Some((_, count)) => *count += 1,
            None => counted.push((damaged, 1)),
        }
    }
    counted.into_iter().max_by_key(|(_, count)| *count).map(|(damaged, _)| damaged)
}

/// Rows of which a joint has let go in more than a tenth of the runs by the time the air goes.
fn also_melts(board: &Board, runs: &[Run], times: &[Option<f64>]) -> Vec<String> {
    let melts = |(run, at): (&Run, &Option<f64>), joint: usize| {
        let ends = at.unwrap_or(LONGEST_S) + HAND_S;
        run.melted[joint].is_some_and(|t| t <= ends)
    };
    let any = |group: &JointGroup, of: (&Run, &Option<f64>)| group.joints.iter().any(|joint| melts(of, *joint));
    let often = |group: &JointGroup| {
        let count = runs.iter().zip(times).filter(|of| any(group, *of)).count();
        count as f64 > OFTEN * runs.len() as f64
    };
    groups(board).into_iter().filter(often).map(|group| group.name).collect()
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::board::{ComponentKind, Face, Point, Rect};
    use crate::example::Bench;

    /// A chip capacitor so many mm behind the port's middle.
    fn with_chip(behind_mm: f64) -> Bench {
        let mut bench = Bench::try_new().expect("the example");
        let middle = bench.board.connector.body.centre;
        let centre = Point { x: middle.x, y: middle.y + behind_mm };
        let body = Rect { centre, width: 1.6, depth: 0.8 };
        bench.board.components = vec![ComponentKind::CeramicChip.at("C7", Face::Top, body)];
        bench
    }

    fn of(bench: &Bench) -> PutBack {
        let composition = bench.composition.for_fit(&bench.board);
        let order = Order { composition: &composition, purpose: Purpose::Fit, ..bench.order() };
        put_back(&order, "C7").expect("computed").expect("it is soldered")
    }

    #[test]
    fn a_chip_far_off_goes_back_without_the_port_and_one_beside_it_takes_it_along() {
        let far = of(&with_chip(16.0));
        assert!(far.liquid.mid_s.is_some_and(|s| (3.0..60.0).contains(&s)) && far.chance > 0.8, "{far:?}");
        assert!(far.also_melts.is_empty(), "{:?}", far.also_melts);
        assert_eq!((far.air.face, far.air.aim), (Face::Top, [0.0, 16.0]));
        let near = of(&with_chip(4.5));
        assert!(!near.also_melts.is_empty(), "{near:?}");
    }

    #[test]
    fn what_is_hurt_is_named_and_the_coolest_air_that_is_quick_enough_is_taken() {
        let mut bench = with_chip(16.0);
        let plain = of(&bench);
        let middle = bench.board.components[0].body.centre;
        let beside = Rect { centre: Point { x: middle.x + 3.0, y: middle.y }, width: 3.0, depth: 3.0 };
        bench.board.components.push(ComponentKind::LithiumCell.at("cell", Face::Top, beside));
        let hurt = of(&bench);
        assert!(hurt.chance < plain.chance, "{} beside a cell, {} without", hurt.chance, plain.chance);
        assert_eq!(hurt.hurts, Some(Damaged::Component { name: "cell".to_owned() }));
        assert!(plain.air.set < bench.station.set_range.1, "not simply the hottest");
    }
}
