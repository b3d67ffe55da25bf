//! What a probe taught, `urgent-mend/calibration/1`: docs/formats/calibration.md.

use mend_core::calibration::probed::Probed;
use mend_core::heat::known::{Belief, Teachable};
use serde::Serialize;

use crate::lesson::LessonFile;

/// The format's name.
pub const FORMAT: &str = "urgent-mend/calibration/1";

#[derive(Serialize)]
struct CalibrationFile {
    format: &'static str,
    /// Do the readings fit a station and a board like these?
    fits: bool,
    residual_k: f64,
    counted: f64,
    before: BeliefFile,
    after: BeliefFile,
    release_s: Option<ReleaseFile>,
    known: LessonFile,
}

#[derive(Serialize)]
struct ReleaseFile {
    before: [Option<f64>; 3],
    after: [Option<f64>; 3],
}

/// Factors on the model with their spread; of the outlet, kelvins.
#[derive(Serialize)]
struct BeliefFile {
    jet: [f64; 2],
    flow: [f64; 2],
    outlet_k: [f64; 2],
    distance: [f64; 2],
    conduction: [f64; 2],
    capacity: [f64; 2],
    losses: [f64; 2],
}

impl BeliefFile {
    fn new(belief: &Belief) -> Self {
        let of = |what: Teachable| {
            let mean = belief.mean[what as usize];
            [if what == Teachable::Outlet { mean } else { mean.exp() }, belief.spread(what)]
        };
        Self {
            jet: of(Teachable::Jet),
            flow: of(Teachable::Flow),
            outlet_k: of(Teachable::Outlet),
            distance: of(Teachable::Distance),
            conduction: of(Teachable::Conduction),
            capacity: of(Teachable::Capacity),
            losses: of(Teachable::Losses),
        }
    }
}

/// Writes what a probe taught.
pub fn write(found: &Probed) -> Result<String, serde_json::Error> {
    let [before, after] = found.beliefs.each_ref().map(BeliefFile::new);
    let file = CalibrationFile {
        format: FORMAT,
        fits: found.fits(),
        residual_k: found.residual_k,
        counted: found.counted,
        before,
        after,
        release_s: found.release_s.map(|[before, after]| ReleaseFile { before, after }),
        known: LessonFile::from_known(&found.says),
    };
    serde_json::to_string_pretty(&file)
}
