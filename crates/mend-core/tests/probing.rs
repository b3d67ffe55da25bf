//! A probe finds a station and a board that are hidden, and the next plan is nearer to the truth for it.
#![allow(clippy::expect_used, clippy::unwrap_used)]

use mend_core::calibration::probe;
use mend_core::calibration::probed::{ProbeRequest, probed};
use mend_core::example::Bench;
use mend_core::heat::case::Case;
use mend_core::heat::ensemble::run_all;
use mend_core::heat::known::Belief;
use mend_core::heat::parameters::ParameterSample;

#[test]
fn a_hidden_jet_and_board_are_found_and_the_next_release_is_predicted() {
    let bench = Bench::try_new().expect("the example");
    let melting = bench.composition.targets(&bench.board).expect("computed");
    let (recipe, taped) = (probe::recipe(&bench.station, &bench.board), [probe::place(&bench.board)]);
    let order = bench.order();
    let next = order.case(&melting);
    let case = Case { recipe: &recipe, thermocouples: &taped, ..next };
    let truth = ParameterSample { jet: 0.75, conduction: 1.4, ..ParameterSample::nominal() };
    let run = |case: &Case<'_>| run_all(case, &[truth], &|_| true).pop().unwrap();
    // A logger of half a kelvin; a wave stands for its noise.
    let curve = run(&case).traces.thermocouples[0].celsius.clone();
    let noise = |k: usize| 0.5 * (1.7 * k as f64).sin();
    let readings: Vec<[f64; 2]> = curve.iter().enumerate().map(|(k, t)| [k as f64, f64::from(*t) + noise(k)]).collect();
    let found = probed(&ProbeRequest { case: &case, readings: &readings, next: Some(&next) }).expect("nobody cancels");
    let [before, after] = &found.beliefs;
    // No input is known much better alone: the bead feels what arrives, what is carried away and what is taken up together.
    let truth = truth.teachable();
    let apart = |belief: &Belief| belief.log_density(&truth) - belief.log_density(&belief.mean);
    assert!(apart(after) > apart(before), "the truth lies nearer to the middle: {} {}", apart(after), apart(before));
    assert!(
        found.fits() && found.residual_k < 3.0 && found.counted == 1.0,
        "{} K, {}",
        found.residual_k,
        found.counted
    );
    let released = run(&next).release.expect("it melts");
    let [blind, learnt] = found.release_s.expect("asked");
    let off = |band: [Option<f64>; 3]| (band[1].expect("half of them melt") / released).ln().abs();
    assert!(off(learnt) < 0.5 * off(blind), "{released} s: {blind:?}, {learnt:?}");
    let width = |band: [Option<f64>; 3]| (band[2].unwrap_or(released * 3.0) / band[0].expect("some melt")).ln();
    assert!(width(learnt) < 0.8 * width(blind), "{blind:?}, {learnt:?}");
}
