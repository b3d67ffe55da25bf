//! What is learnt from observations, over 200 truths drawn from the same guesses: the bands keep their word, and each observation
//! brings what it should.
#![allow(clippy::expect_used, clippy::unwrap_used, clippy::print_stdout)]

use mend_core::calibration::probe;
use mend_core::calibration::twin::Twin;
use mend_core::example::Bench;
use mend_core::heat::case::Case;
use mend_core::heat::ensemble::run_all;
use mend_core::heat::parameters::ParameterSample;
use mend_core::heat::recipe::{HeatingAids, HeatingStage, Recipe};
use mend_core::heat::run::Run;
use mend_core::heat::thermocouple::Thermocouple;
use mend_core::heat::tool::HotAir;
use mend_core::units::{Duration, Flow, Temperature};

const TRUTHS: usize = 200;
const RUNS: usize = 256;

/// Numbers of a standard bell, the same every time (a linear congruence; Box and Muller 1958).
struct Chance(u64);

impl Chance {
    fn even(&mut self) -> f64 {
        self.0 = self.0.wrapping_mul(6_364_136_223_846_793_005).wrapping_add(1_442_695_040_888_963_407);
        ((self.0 >> 11) as f64 + 0.5) / (1u64 << 53) as f64
    }
    fn bell(&mut self) -> f64 {
        (-2.0 * self.even().ln()).sqrt() * (std::f64::consts::TAU * self.even()).cos()
    }
}

/// The recipe with a jet that wanders by a tenth, every twenty seconds anew: what no parameter explains.
fn wandering(recipe: &Recipe, chance: &mut Chance) -> Recipe {
    const PIECE_S: f64 = 20.0;
    const FLOW_FOR_TRANSFER: f64 = 1.0 / 0.55;
    let air = recipe.air.expect("hot air");
    let pieces = (recipe.longest.in_seconds() / PIECE_S) as usize;
    let piece = |_| {
        let flow = air.flow.in_litres_per_minute() * (0.10 * FLOW_FOR_TRANSFER * chance.bell()).exp();
        let air = Some(HotAir { flow: Flow::litres_per_minute(flow), ..air });
        let (lasts, change) = (Duration::seconds(PIECE_S), Duration::seconds(0.0));
        HeatingStage { air, during: HeatingAids::default(), lasts, change }
    };
    Recipe { preheat: (0..pieces).map(piece).collect(), longest: Duration::seconds(PIECE_S), ..recipe.clone() }
}

struct Drawn {
    ensemble: Vec<Run>,
    truths: Vec<Run>,
}

fn drawn(case: &Case<'_>) -> Drawn {
    let mut samples = ParameterSample::samples(RUNS + TRUTHS, case);
    let truths = samples.split_off(RUNS);
    let mut chance = Chance(7);
    let recipes: Vec<Recipe> = truths.iter().map(|_| wandering(case.recipe, &mut chance)).collect();
    let truths = truths
        .iter()
        .zip(&recipes)
        .map(|(sample, recipe)| run_all(&Case { recipe, ..*case }, &[*sample], &|_| true).pop().unwrap())
        .collect();
    Drawn { ensemble: run_all(case, &samples, &|_| true), truths }
}

/// How far the middle is from the truth, as a logarithm, and whether the band holds it.
fn against(twin: &Twin, at_s: f64, truth: f64) -> (f64, bool) {
    let [low, mid, high] = twin.state(at_s).release_s;
    let off = mid.map_or(1.0, |mid| (mid / truth).ln().abs());
    (off, low.is_some_and(|low| low <= truth) && high.is_none_or(|high| truth <= high))
}

fn summed(all: &[(f64, bool)]) -> (f64, f64) {
    let mut off: Vec<f64> = all.iter().map(|(off, _)| *off).collect();
    off.sort_by(f64::total_cmp);
    (off[off.len() / 2].exp() - 1.0, all.iter().filter(|(_, held)| *held).count() as f64 / all.len() as f64)
}

#[test]
fn bands_narrow_with_what_is_read_and_keep_their_word() {
    let mut bench = Bench::try_new().expect("the example");
    bench.recipe.air.as_mut().unwrap().set = Temperature::celsius(430.0);
    let melting = bench.composition.targets(&bench.board).expect("computed");
    let taped = [Thermocouple { ..probe::place(&bench.board) }];
    let order = bench.order();
    let case = Case { thermocouples: &taped, ..order.case(&melting) };
    let Drawn { ensemble, truths } = drawn(&case);
    let released: Vec<&Run> = truths.iter().filter(|run| run.release.is_some()).collect();
    let mut chance = Chance(11);
    let mut at: [Vec<(f64, bool)>; 4] = Default::default();
    for truth in &released {
        let release = truth.release.unwrap();
        let mut twin = Twin::new(ensemble.clone(), vec![None; RUNS]);
        at[0].push(against(&twin, 0.0, release));
        let curve = &truth.traces.thermocouples[0];
        let slip = chance.bell();
        for second in 0..=release as usize {
            let reads =
                f64::from(curve.celsius[second]) + 0.6 * slip * f64::from(curve.per_mm[second]) + 0.5 * chance.bell();
            let _ = twin.read(0, [second as f64, reads]);
            if second == (release / 2.0) as usize {
                at[1].push(against(&twin, second as f64, release));
            }
            if second == (0.75 * release) as usize {
                at[2].push(against(&twin, second as f64, release));
            }
        }
    }
    for (k, all) in at.iter().enumerate().filter(|(_, all)| !all.is_empty()) {
        let (median, held) = summed(all);
        println!("{k}: {} truths, median error {:.0} %, held {:.0} %", all.len(), 100.0 * median, 100.0 * held);
    }
}
