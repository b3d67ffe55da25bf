//! Where no air blows: every set temperature and tip, a run each.

use rayon::prelude::*;

use super::super::limits::{first_damage_of, limits};
use super::super::order::Unplanned;
use super::judged::Judged;
use super::request::{Effort, SearchRequest, Tried};
use super::score::{NEVER_K, Score};
use crate::heat::iron::Iron;
use crate::heat::mesh::Resolution;
use crate::heat::parameters::ParameterSample;
use crate::heat::recipe::{HeatingAids, HeatingStage, Recipe};
use crate::heat::run::run_until;
use crate::method::start::Start;
use crate::units::{Length, Temperature};

/// Judged over so many samples besides the nominal run: the first of the plan's own.
const SAMPLES: usize = 2;
/// Of the tips owned, so many of the stoutest are looked at first.
const LOOKED_AT: usize = 2;

/// Everything an iron beginning leads to, and how many candidates that were.
pub(super) fn all(
    sought: &SearchRequest<'_>,
    start: &Start,
    sets: &[Temperature],
    tips: &[Length],
) -> Result<(Vec<Tried>, usize), Unplanned> {
    let thin = if sought.effort == Effort::Look { 2 } else { 1 };
    let sets = sets.iter().skip(thin - 1).step_by(thin);
    let mut stout = tips.to_vec();
    stout.sort_by(|a, b| b.in_mm().total_cmp(&a.in_mm()));
    stout.truncate(if sought.effort == Effort::Look { LOOKED_AT } else { stout.len() });
    let recipes: Vec<Recipe> = sets.flat_map(|set| stout.iter().map(|tip| with(&start.recipe, *set, *tip))).collect();
    sought.watch.expect(recipes.len());
    let tried = recipes.par_iter().map(|recipe| {
        let tried = judged(sought, start, recipe);
        sought.watch.one_done();
        tried
    });
    let tried = tried.collect::<Result<Vec<_>, _>>()?;
    let count = tried.len();
    Ok((tried, count))
}

/// The same recipe with every tip so wide and so hot.
fn with(recipe: &Recipe, set: Temperature, tip: Length) -> Recipe {
    let hot = |during: &HeatingAids| HeatingAids {
        iron: during.iron.as_ref().map(|iron| Iron { set, tip, ..iron.clone() }),
        ..during.clone()
    };
    let preheat =
        recipe.preheat.iter().map(|stage| HeatingStage { during: hot(&stage.during), ..stage.clone() }).collect();
    Recipe { preheat, during: hot(&recipe.during), ..recipe.clone() }
}

fn judged(sought: &SearchRequest<'_>, start: &Start, recipe: &Recipe) -> Result<Tried, Unplanned> {
    let order = sought.order(&start.composition, recipe);
    let melting = start.composition.targets(sought.subject.board)?;
    let case = order.case(&melting);
    let limits = limits(&order, &case);
    let samples = ParameterSample::samples(SAMPLES, &case);
    let run = |parameters: &ParameterSample| {
        let run = run_until(&case, parameters, Resolution::COARSE, &|run| first_damage_of(&limits, run).is_some());
        Judged::from_run(&run, &limits, sought.subject.board)
    };
    let usual = run(&ParameterSample::middle(&case));
    let others: Vec<Judged> = samples.iter().map(run).collect();
    let all = others.iter().chain([&usual]);
    let tightest = all.clone().filter(|j| j.release_s.is_some()).filter_map(|j| j.tightest);
    let tightest = tightest.min_by(|a, b| a.1.total_cmp(&b.1));
    let headroom_k = match (usual.release_s, tightest) {
        (None, _) => -NEVER_K - usual.lacks_k,
        (Some(_), tightest) => tightest.map_or(NEVER_K, |(_, headroom)| headroom),
    };
    let from = recipe.seconds_before() as f64;
    let score = Score {
        works: all.filter(|j| j.works()).count() as u8,
        usual: usual.works(),
        headroom_k,
        release_s: usual.release_s.map(|t| (t - from).max(0.0)),
        heat_s: usual.release_s.unwrap_or(recipe.seconds() as f64),
        shields: recipe.shields.len(),
        steep: usual.steep,
    };
    let tightest_component = tightest.and_then(|(k, _)| limits[k].component());
    let tightest = tightest.map(|(k, _)| limits[k].of.clone());
    Ok(Tried { composition: start.composition.clone(), recipe: recipe.clone(), score, tightest, tightest_component })
}
