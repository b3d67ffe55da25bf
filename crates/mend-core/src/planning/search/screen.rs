//! One unit run for all set temperatures of a setting, judged for a weak, a usual and a strong jet.

use super::super::limits::{Limit, comes_first, limits};
use super::super::order::{Order, Unplanned};
use super::super::process_window::COOLEST_SET_C;
use super::super::rules::ramp::is_steep;
use super::super::scaled::Scaled;
use super::request::{SearchRequest, Tried};
use super::score::{NEVER_K, Score};
use crate::heat::at_work::jet;
use crate::heat::case::Case;
use crate::heat::parameters::ParameterSample;
use crate::heat::recipe::Recipe;
use crate::heat::station::Station;
use crate::heat::tool::HotAir;
use crate::heat::uncertainty::Uncertainty;
use crate::heat::unit_run::{Soak, UnitRun, unit_run, unit_run_after};
use crate::method::start::Start;
use crate::solder::{JointComposition, MeltTarget};
use crate::units::{TempDelta, Temperature};

/// Set temperatures that are judged of each run.
pub(super) const SETS: usize = 41;
/// A rise goes with this power of the jet's transfer (E: between a cold board, 1, and the balance with the room's losses, 0.5).
const RISE_FOR_TRANSFER: f64 = 0.7;
/// A flow is a transfer by this power (T, Martin, about where hand tools work).
const TRANSFER_FOR_FLOW: f64 = 0.55;
/// Half width of the middle eight in ten of a bell, standard deviations (T).
const EIGHT_IN_TEN: f64 = 1.281_6;

/// A setting to be screened: joints that hold `composition`, everything of `recipe` but its set temperature, none hotter.
pub(super) struct Setting<'a> {
    pub(super) composition: &'a JointComposition,
    pub(super) recipe: &'a Recipe,
    pub(super) hottest: Temperature,
    /// What comes before the last stage, where that is known.
    pub(super) soaked: Soaked<'a>,
}

/// What is known of the stages before the last.
#[derive(Clone, Copy)]
pub(super) enum Soaked<'a> {
    /// Nothing yet.
    Unknown,
    /// This, of a setting that differs in the air of the last stage alone; none where there is nothing before it.
    Known(Option<&'a Soak>),
}

/// The soak of a beginning: all its bare settings have the same.
pub(super) fn soak(sought: &SearchRequest<'_>, start: &Start) -> Result<Option<Soak>, Unplanned> {
    let melting = start.composition.targets(sought.subject.board)?;
    Ok(Soak::run(&sought.order(&start.composition, &start.recipe).case(&melting)))
}

/// The best set temperature of a setting.
pub(super) fn best(sought: &SearchRequest<'_>, setting: &Setting<'_>) -> Result<Option<Tried>, Unplanned> {
    let Some(air) = setting.recipe.air else { return Ok(None) };
    let sets = sets(sought.subject.station, setting.hottest);
    let at = |set: Temperature| Recipe { air: Some(HotAir { set, ..air }), ..setting.recipe.clone() };
    let middle = at(sets[sets.len() / 2]);
    let melting = setting.composition.targets(sought.subject.board)?;
    let order = sought.order(setting.composition, &middle);
    let case = order.case(&melting);
    let limits = limits(&order, &case);
    let unit = match setting.soaked {
        Soaked::Unknown => unit_run(&case),
        Soaked::Known(soak) => unit_run_after(&case, soak),
    };
    let middle = ParameterSample::middle(&case);
    let screened = Screened { order: &order, case, limits: &limits, unit: &unit, air, middle };
    let scored = sets.iter().map(|set| (screened.score(*set), *set));
    let best = scored.max_by(|a, b| a.0.0.order(&b.0.0));
    Ok(best.map(|((score, tightest), set)| Tried {
        composition: setting.composition.clone(),
        recipe: at(set),
        score,
        tightest: tightest.map(|k| limits[k].of.clone()),
        tightest_component: tightest.and_then(|k| limits[k].component()),
    }))
}

/// Even steps over what the station takes, up to the hottest that is wanted.
fn sets(station: &Station, hottest: Temperature) -> Vec<Temperature> {
    let low = station.set_range.0.in_celsius().max(COOLEST_SET_C);
    let high = hottest.in_celsius().min(station.set_range.1.in_celsius()).max(low);
    let even = |k: usize| Temperature::celsius((low + (high - low) * k as f64 / (SETS - 1) as f64).round());
    (0..SETS).map(even).collect()
}

/// Between which factors of a rise eight in ten jets of this station fall: up, and as far down.
fn spread(case: &Case<'_>) -> f64 {
    let known = Uncertainty::from_case(case);
    let transfer = known.jet.hypot(known.flow * TRANSFER_FOR_FLOW);
    (EIGHT_IN_TEN * transfer * RISE_FOR_TRANSFER).exp()
}

struct Screened<'a> {
    order: &'a Order<'a>,
    case: Case<'a>,
    limits: &'a [Limit],
    unit: &'a UnitRun,
    air: HotAir,
    middle: ParameterSample,
}

impl Screened<'_> {
    fn score(&self, set: Temperature) -> (Score, Option<usize>) {
        let exit_excess = jet(&self.case, &HotAir { set, ..self.air }, &self.middle).exit_excess;
        let wide = spread(&self.case);
        let seen = [(1.0, 0.0), (1.0 / wide, 1.0), (wide, -1.0)].map(|(factor, late)| {
            let scale = factor * exit_excess / self.unit.exit_excess;
            self.seen(&Scaled { unit: self.unit, scale, ambient: self.order.ambient }, late)
        });
        let tightest = seen.iter().filter_map(|seen| seen.tightest).min_by(|a, b| a.1.total_cmp(&b.1));
        let usual = &seen[0];
        let headroom_k = match (usual.release_s, tightest) {
            (None, _) => -NEVER_K - usual.lacks_k,
            (Some(_), Some((_, headroom))) => headroom,
            (Some(_), None) => NEVER_K,
        };
        let recipe = self.order.recipe;
        let score = Score {
            works: seen.iter().filter(|seen| seen.works).count() as u8,
            usual: usual.works,
            headroom_k,
            release_s: usual.release_s,
            heat_s: recipe.seconds_before() as f64 + usual.release_s.unwrap_or(recipe.longest.in_seconds()),
            shields: recipe.shields.len(),
            steep: usual.steep,
        };
        (score, tightest.map(|(k, _)| k))
    }

    /// What one jet does; joints melt `late` times their spread later.
    fn seen(&self, scaled: &Scaled<'_>, late: f64) -> ScreenedPoint {
        let later = |t: &MeltTarget| self.middle.melts(t).lets_go + TempDelta::kelvin(late * t.spread.in_kelvin());
        let melting: Vec<Temperature> = self.case.melting.iter().map(later).collect();
        let candidate = scaled.candidate(&melting, self.limits);
        ScreenedPoint {
            works: comes_first(candidate.release_s, candidate.damage.map(|(at, _)| at)),
            tightest: candidate.release_s.and_then(|t| scaled.tightest(self.limits, t)),
            steep: candidate.release_s.is_some_and(|t| is_steep(self.order.board, &scaled.components(t))),
            release_s: candidate.release_s,
            lacks_k: if candidate.release_s.is_none() { scaled.lacks(&melting) } else { 0.0 },
        }
    }
}

struct ScreenedPoint {
    works: bool,
    steep: bool,
    release_s: Option<f64>,
    tightest: Option<(usize, f64)>,
    lacks_k: f64,
}
