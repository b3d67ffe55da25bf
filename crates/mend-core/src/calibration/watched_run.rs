//! What is watched of a run: its moments, its thermocouples, its coldest joint. The run itself is sixteen times as large, and a shop
//! may watch many at once.

use crate::heat::run::Run;
use crate::heat::thermocouple::ThermocoupleCurve;

/// A run as its watcher needs it. Seconds count from the first tool.
#[derive(Debug, Clone, PartialEq)]
pub struct WatchedRun {
    /// When the part comes away, s.
    pub release_s: Option<f64>,
    /// After all goes off, until the last joint is solid, s.
    pub hold_s: Option<f64>,
    /// When something is damaged first, s.
    pub damage_s: Option<f64>,
    /// For each joint, when it let go, s.
    pub melted: Vec<Option<f64>>,
    /// What each thermocouple reads, °C.
    pub thermocouples: Vec<ThermocoupleCurve>,
    /// At each full second the joint that lacks most to where it lets go, °C.
    pub coldest: Vec<f32>,
    /// At each full second what is nearest to its limit, °C; empty where nothing is looked at.
    pub tightest: Vec<f32>,
}

impl WatchedRun {
    /// The same with something that is damaged then, s. As it comes from a run, nothing is.
    ///
    /// ```
    /// use mend_core::calibration::watched_run::WatchedRun;
    /// use mend_core::example::Bench;
    /// let bench = Bench::try_new().expect("the example");
    /// use mend_core::heat::{mesh::Resolution, parameters::ParameterSample, run::run};
    /// let melting = bench.composition.targets(&bench.board).expect("computed");
    /// let done = run(&bench.order().case(&melting), &ParameterSample::nominal(), Resolution::COARSE);
    /// let watched = WatchedRun::from(&done);
    /// assert_eq!((watched.damage_s, watched.coldest.len()), (None, done.traces.len()));
    /// assert_eq!(watched.damaged_at(Some(20.0)).damage_s, Some(20.0));
    /// ```
    pub fn damaged_at(self, damage_s: Option<f64>) -> Self {
        Self { damage_s, ..self }
    }
}

impl From<&Run> for WatchedRun {
    fn from(run: &Run) -> Self {
        let second = |second: usize| {
            let joints = run.traces.joints.iter().zip(&run.melts_at);
            let lacks = joints.filter_map(|(curve, melts)| curve.get(second).map(|is| (melts - f64::from(*is), *is)));
            lacks.max_by(|a, b| a.0.total_cmp(&b.0)).map_or(f32::NAN, |(_, is)| is)
        };
        Self {
            release_s: run.release,
            hold_s: run.cooling.as_ref().and_then(|cooling| cooling.hold),
            damage_s: None,
            melted: run.melted.clone(),
            thermocouples: run.traces.thermocouples.clone(),
            coldest: (0..run.traces.len()).map(second).collect(),
            tightest: Vec::new(),
        }
    }
}
