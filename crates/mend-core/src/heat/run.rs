//! One run: the stages until the longest time, what melts when; and from the moment of release, everything off until all is
//! solid.

use super::case::Case;
use super::mesh::Resolution;
use super::network::Network;
use super::parameters::ParameterSample;
use super::rig::{Model, Rig};
use super::run_view::RunView;
use super::simulation::Simulation;
use super::stepping::Sweep;
use super::traces::Traces;
use super::under::mean;
use crate::units::Temperature;

/// Longest cooling that is followed, s.
const LONGEST_COOLING: usize = 300;
/// Seconds after a release between questions whether a run is known enough.
const ASKED_EACH: usize = 5;
/// Down to here braid glides on a warm board, °C (E).
pub const WICKING_WARMTH: Temperature = Temperature::celsius(150.0);

/// What a run found. Seconds count from the first tool.
#[derive(Debug, Clone)]
pub struct Run {
    /// What it took for true.
    pub parameters: ParameterSample,
    /// For each joint, when it let go, s.
    pub melted: Vec<Option<f64>>,
    /// For each joint, where it lets go in this run, °C.
    pub melts_at: Vec<f64>,
    /// When the part comes away: the last joint, and the hand that notices, s.
    pub release: Option<f64>,
    /// When the last stage began, s.
    pub last_from: f64,
    /// Temperatures, °C.
    pub traces: Traces,
    /// After release.
    pub cooling: Option<Cooling>,
    /// Both faces at release, or at the end if it never came, °C by column.
    pub faces: [Vec<f32>; 2],
}

/// What happens after all goes off at release.
#[derive(Debug, Clone)]
pub struct Cooling {
    /// Until the last joint is all solid, s.
    pub hold: Option<f64>,
    /// Until the board under the joints is too cool to wick on, s.
    pub warm: f64,
    /// Temperatures from then on, °C.
    pub traces: Traces,
}

/// The pause between "it is molten" and "it is up": min(3 s, 0.25 t + 0.5 s) (E).
pub(crate) fn handling(molten: f64) -> f64 {
    (0.25 * molten + 0.5).min(3.0)
}

/// Is it asked after so many seconds whether a run is known enough? At its release, and every so often from then on: who answers
/// goes through the whole run.
fn asks(run: &Run, second: usize) -> bool {
    let since = run.release.and_then(|release| second.checked_sub(release.ceil() as usize));
    since.is_some_and(|since| since.is_multiple_of(ASKED_EACH))
}

/// When the part comes away by when its joints melt: the last of them, and the hand. None while one is not molten.
pub(crate) fn comes_away(melted: &[Option<f64>]) -> Option<f64> {
    let molten = melted.iter().copied().try_fold(0.0, |last: f64, t| Some(last.max(t?)))?;
    Some(molten + handling(molten))
}

/// Computes a run to its longest heating. The same inputs give the same bits.
///
/// ```
/// use mend_core::example::Bench;
/// let bench = Bench::try_new().expect("the example");
/// use mend_core::heat::{mesh::Resolution, parameters::ParameterSample, run::run};
/// let melting = bench.composition.targets(&bench.board).expect("computed");
/// let order = bench.order();
/// let nominal = ParameterSample::nominal();
/// let done = run(&order.case(&melting), &nominal, Resolution::COARSE);
/// assert!(done.traces.body.iter().all(|t| (20.0..480.0).contains(t)), "between ambient and the air");
/// assert_eq!(done.melted.len(), bench.board.connector.joints.len());
/// ```
pub fn run(case: &Case<'_>, parameters: &ParameterSample, resolution: Resolution) -> Run {
    run_until(case, parameters, resolution, &|_| false)
}

/// The same, but once the part is released the heating ends soon after `enough` is known: within five seconds.
///
/// ```
/// use mend_core::example::Bench;
/// let bench = Bench::try_new().expect("the example");
/// use mend_core::heat::{mesh::Resolution, parameters::ParameterSample, run::{run, run_until}};
/// let melting = bench.composition.targets(&bench.board).expect("computed");
/// let (order, nominal) = (bench.order(), ParameterSample::nominal());
/// let case = order.case(&melting);
/// let enough = run_until(&case, &nominal, Resolution::COARSE, &|run| run.release.is_some());
/// assert_eq!(enough.release, run(&case, &nominal, Resolution::COARSE).release);
/// ```
pub fn run_until(
    case: &Case<'_>,
    parameters: &ParameterSample,
    resolution: Resolution,
    enough: &dyn Fn(&Run) -> bool,
) -> Run {
    let [run] = run_batch(case, std::array::from_ref(parameters), resolution, enough);
    run
}

/// The same, but over with its release: nothing of the cooling, or of what a longer heating would do, is asked.
///
/// ```
/// use mend_core::example::Bench;
/// let bench = Bench::try_new().expect("the example");
/// use mend_core::heat::{mesh::Resolution, parameters::ParameterSample, run::{run, run_to_release}};
/// let melting = bench.composition.targets(&bench.board).expect("computed");
/// let (order, nominal) = (bench.order(), ParameterSample::nominal());
/// let case = order.case(&melting);
/// let heated = run_to_release(&case, &nominal, Resolution::COARSE);
/// assert_eq!(heated.release, run(&case, &nominal, Resolution::COARSE).release);
/// assert!(heated.cooling.is_none());
/// ```
pub fn run_to_release(case: &Case<'_>, parameters: &ParameterSample, resolution: Resolution) -> Run {
    let rig = Rig::new(case, parameters, Model { resolution, linear: false });
    let parameters = std::array::from_ref(parameters);
    let [run] = Runner { case, parameters, rig, at_release: None, cools: false }.run(&|_| true);
    run
}

/// The same for several parameters at once, each to its own end. They take the steps of the stiffest.
///
/// ```
/// use mend_core::example::Bench;
/// let bench = Bench::try_new().expect("the example");
/// use mend_core::heat::{mesh::Resolution, parameters::ParameterSample, run::{run, run_batch}};
/// let melting = bench.composition.targets(&bench.board).expect("computed");
/// let (order, nominal) = (bench.order(), ParameterSample::nominal());
/// let case = order.case(&melting);
/// let runs = run_batch(&case, &[nominal; 8], Resolution::COARSE, &|_| false);
/// let (alone, batch) = (run(&case, &nominal, Resolution::COARSE).release, runs[7].release);
/// assert!((alone.expect("it melts") - batch.expect("it melts")).abs() < 0.01);
/// ```
pub fn run_batch<const RUNS: usize>(
    case: &Case<'_>,
    parameters: &[ParameterSample; RUNS],
    resolution: Resolution,
    enough: &dyn Fn(&Run) -> bool,
) -> [Run; RUNS]
where
    f32: Sweep<RUNS>,
{
    let rig = Rig::batch(case, parameters, Model { resolution, linear: false });
    Runner { case, parameters, rig, at_release: None, cools: true }.run(enough)
}

struct Runner<'a, const RUNS: usize> {
    case: &'a Case<'a>,
    parameters: &'a [ParameterSample; RUNS],
    rig: Rig<RUNS>,
    /// Each run as it stood at its own release, once there was one; of the others as they stood then.
    at_release: Option<Simulation<f32, RUNS>>,
    /// Is it followed while it cools?
    cools: bool,
}

impl<const RUNS: usize> Runner<'_, RUNS>
where
    f32: Sweep<RUNS>,
{
    fn run(mut self, enough: &dyn Fn(&Run) -> bool) -> [Run; RUNS] {
        let mut runs = self.parameters.each_ref().map(|parameters| self.empty(parameters));
        let mut melted = runs.each_ref().map(|run| run.melted.clone());
        let mut done = [false; RUNS];
        let mut second = 0;
        self.record(&mut runs, &done);
        'heating: for stage in 0..self.rig.stages.len() {
            self.rig.begin(stage);
            for _ in 0..self.rig.stages[stage].seconds {
                self.rig.one_second_melting(second, &mut melted);
                self.record(&mut runs, &done);
                second += 1;
                for (k, run) in runs.iter_mut().enumerate() {
                    if !done[k] {
                        run.melted.copy_from_slice(&melted[k]);
                        self.look_after(k, run, second);
                        done[k] = asks(run, second) && enough(run);
                    }
                }
                if self.case.watch.is_cancelled() || done.iter().all(|done| *done) {
                    break 'heating;
                }
            }
        }
        self.back_to_release(&runs, second);
        let last = self.rig.simulation.mesh().layers - 1;
        let ambient = self.ambient();
        for (k, run) in runs.iter_mut().enumerate() {
            let state = self.rig.simulation.of(k);
            run.faces = [0, last].map(|layer| state.layer(layer).iter().map(|t| t + ambient).collect());
        }
        if self.cools {
            self.cool(&mut runs);
        }
        runs
    }

    /// What has melted in a run after so many seconds, and how it stands at its release.
    fn look_after(&mut self, k: usize, run: &mut Run, seconds: usize) {
        let released = |run: &Run, by: usize| run.release.is_some_and(|t| t <= by as f64);
        let was = released(run, seconds - 1);
        run.release = run.release.or_else(|| comes_away(&run.melted));
        if !was && released(run, seconds) {
            match &mut self.at_release {
                Some(states) => states.take_over(k, &self.rig.simulation),
                None => self.at_release = Some(self.rig.simulation.clone()),
            }
        }
    }

    /// Every run that came to its release within `seconds` goes back to it.
    fn back_to_release(&mut self, runs: &[Run; RUNS], seconds: usize) {
        let Some(states) = self.at_release.take() else { return };
        let released = |run: &Run| run.release.is_some_and(|t| t <= seconds as f64);
        for (k, _) in runs.iter().enumerate().filter(|(_, run)| released(run)) {
            self.rig.simulation.take_over(k, &states);
        }
    }

    fn ambient(&self) -> f32 {
        self.case.ambient.in_celsius() as f32
    }

    fn empty(&self, parameters: &ParameterSample) -> Run {
        let melts = self.case.melting.iter().map(|target| parameters.melts(target).lets_go.in_celsius());
        Run {
            parameters: *parameters,
            melted: vec![None; self.rig.network.joints.len()],
            melts_at: melts.collect(),
            release: None,
            last_from: self.case.recipe.seconds_before() as f64,
            traces: Traces::from_network(&self.rig.network),
            cooling: None,
            faces: [Vec::new(), Vec::new()],
        }
    }

    fn record(&self, runs: &mut [Run; RUNS], done: &[bool; RUNS]) {
        for (k, run) in runs.iter_mut().enumerate().filter(|(k, _)| !done[*k]) {
            run.traces.record(&self.rig.simulation.of(k), &self.rig.network, self.ambient());
        }
    }

    /// Everything off, until every run that was released is solid and too cool to wick on.
    fn cool(&mut self, runs: &mut [Run; RUNS]) {
        self.rig.simulation.set_airs(&self.rig.quiet);
        let mut cooling: [Option<Follow>; RUNS] = std::array::from_fn(|k| {
            runs[k].release.map(|_| Follow::from_now(&self.rig.simulation.of(k), &self.rig.network, self.ambient()))
        });
        for second in 1..=LONGEST_COOLING {
            if cooling.iter().flatten().all(Follow::is_over) {
                break;
            }
            self.rig.one_second();
            for (k, follow) in cooling.iter_mut().enumerate() {
                let follow = follow.as_mut().filter(|follow| !follow.is_over());
                follow.into_iter().for_each(|f| f.look(second, &self.rig.simulation.of(k), &self.rig.network));
            }
        }
        for (run, follow) in runs.iter_mut().zip(cooling) {
            run.cooling = follow.map(|follow| follow.found);
        }
    }
}

/// A run that cools.
struct Follow {
    ambient: f32,
    found: Cooling,
    warm: bool,
}

impl Follow {
    fn from_now<const RUNS: usize>(state: &RunView<'_, f32, RUNS>, network: &Network, ambient: f32) -> Self
    where
        f32: Sweep<RUNS>,
    {
        let mut traces = Traces::from_network(network);
        traces.record(state, network, ambient);
        let found = Cooling { hold: None, warm: LONGEST_COOLING as f64, traces };
        Self { ambient, found, warm: true }
    }

    fn is_over(&self) -> bool {
        self.found.hold.is_some() && !self.warm
    }

    fn look<const RUNS: usize>(&mut self, second: usize, state: &RunView<'_, f32, RUNS>, network: &Network)
    where
        f32: Sweep<RUNS>,
    {
        self.found.traces.record(state, network, self.ambient);
        if self.found.hold.is_none() && network.joints.iter().all(|k| state.is_solid(*k)) {
            self.found.hold = Some(second as f64);
        }
        if self.warm && mean(state, &network.pads) + f64::from(self.ambient) < WICKING_WARMTH.in_celsius() {
            self.found.warm = second as f64;
            self.warm = false;
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn the_part_comes_away_a_hand_after_the_last_joint_and_not_before() {
        assert_eq!(comes_away(&[Some(20.0), Some(30.0)]), Some(33.0));
        assert_eq!(comes_away(&[Some(2.0)]), Some(3.0), "a quarter of it and half a second");
        assert_eq!(comes_away(&[Some(20.0), None]), None);
    }
}
