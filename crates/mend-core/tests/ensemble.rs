//! Runs of a batch against the same runs one by one.

mod common;

use common::{below, board, with_case};
use mend_core::heat::mesh::Resolution;
use mend_core::heat::parameters::ParameterSample;
use mend_core::heat::run::{Run, run, run_batch};

/// Largest difference of two curves over the rise at that second, from a rise of 20 K on.
fn apart(a: &[f32], b: &[f32]) -> f64 {
    assert_eq!(a.len(), b.len(), "curves end together");
    let rise = |t: &f32| f64::from(*t) - 23.0;
    let pairs = a.iter().zip(b).filter(|(a, _)| rise(a) > 20.0);
    pairs.map(|(a, b)| (rise(a) - rise(b)).abs() / rise(a)).fold(0.0, f64::max)
}

fn curves(run: &Run) -> Vec<&[f32]> {
    let traces = &run.traces;
    let all = traces.joints.iter().chain(&traces.components).map(Vec::as_slice);
    all.chain([&traces.body[..], &traces.pads, &traces.laminate]).collect()
}

#[test]
fn a_batch_says_what_each_of_its_runs_says_alone() {
    let (board, recipe) = (board(), below(440.0));
    with_case(&board, &recipe, |case| {
        let samples = ParameterSample::samples(8, case);
        let batch: [ParameterSample; 8] = std::array::from_fn(|k| samples[k]);
        let together = run_batch(case, &batch, Resolution::COARSE, &|_| false);
        for (sample, of_batch) in samples.iter().zip(&together) {
            let alone = run(case, sample, Resolution::COARSE);
            for (a, b) in curves(&alone).into_iter().zip(curves(of_batch)) {
                assert!(apart(a, b) < 1e-4, "{} of the rise", apart(a, b));
            }
            let release = |run: &Run| run.release.unwrap_or(0.0);
            assert!((release(&alone) - release(of_batch)).abs() <= 1e-3 * release(&alone), "{:?}", alone.release);
            let peak = |run: &Run| {
                run.cooling.as_ref().and_then(|c| c.traces.body.iter().copied().reduce(f32::max)).unwrap_or(0.0)
            };
            assert!((peak(&alone) - peak(of_batch)).abs() < 0.1, "cooling goes on from each run's own release");
        }
    });
}
