//! Many runs of one case under different parameters: as many in a batch as a vector holds, on all cores.

use rayon::prelude::*;

use super::case::Case;
use super::mesh::Resolution;
use super::parameters::ParameterSample;
use super::run::{Run, run_batch};
use super::stepping::BATCH;

/// A coarse run for each sample, in their order; each ends once it is released and `enough` is known.
///
/// ```
/// use mend_core::example::Bench;
/// let bench = Bench::try_new().expect("the example");
/// use mend_core::heat::{ensemble::run_all, parameters::ParameterSample};
/// let melting = bench.composition.targets(&bench.board).expect("computed");
/// let order = bench.order();
/// let case = order.case(&melting);
/// let samples = ParameterSample::samples(9, &case);
/// let runs = run_all(&case, &samples, &|_| true);
/// assert_eq!(runs.len(), 9);
/// ```
pub fn run_all(case: &Case<'_>, samples: &[ParameterSample], enough: &(dyn Fn(&Run) -> bool + Sync)) -> Vec<Run> {
    let together = |samples: &[ParameterSample]| {
        // The last runs of a number that eight does not divide go along once more.
        let batch: [ParameterSample; BATCH] = std::array::from_fn(|k| samples[k.min(samples.len() - 1)]);
        let runs = run_batch(case, &batch, Resolution::COARSE, enough);
        samples.iter().for_each(|_| case.watch.one_done());
        runs.into_iter().take(samples.len()).collect::<Vec<Run>>()
    };
    samples.par_chunks(BATCH).flat_map_iter(together).collect()
}
