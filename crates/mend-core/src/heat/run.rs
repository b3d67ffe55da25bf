//! One run: the stages until the longest time, what melts when; and from the moment of release, everything off until all is
//! solid.

use super::case::Case;
use super::mesh::Resolution;
use super::parameters::ParameterSample;
use super::rig::{Model, Rig};
use super::traces::{Traces, mean};
use crate::units::Temperature;

/// Longest cooling that is followed, s.
const LONGEST_COOLING: usize = 300;
/// Down to here braid glides on a warm board, °C (E).
pub const WICKING_WARMTH: Temperature = Temperature::celsius(150.0);

/// What a run found. Seconds count from the first tool.
#[derive(Debug, Clone)]
pub struct Run {
    /// For each joint, when it was all liquid, s.
    pub melted: Vec<Option<f64>>,
    /// For each joint, where it melted in this run, °C.
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
    /// How far the part's body and each component climbed on after the air went off: their highest, °C.
    pub body_peak: f32,
    /// Per component, °C.
    pub component_peaks: Vec<f32>,
}

/// The pause between "it is molten" and "it is up": min(3 s, 0.25 t + 0.5 s) (E).
pub(crate) fn handling(molten: f64) -> f64 {
    (0.25 * molten + 0.5).min(3.0)
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
/// let nominal = ParameterSample::nominal(&bench.board.stack);
/// let done = run(&order.case(&melting), &nominal, Resolution::COARSE);
/// assert!(done.traces.body.iter().all(|t| (20.0..480.0).contains(t)), "between ambient and the air");
/// assert_eq!(done.melted.len(), bench.board.connector.joints.len());
/// ```
pub fn run(case: &Case<'_>, parameters: &ParameterSample, resolution: Resolution) -> Run {
    run_until(case, parameters, resolution, &|_| false)
}

/// The same, but once the part is released the heating ends as soon as `enough` is known.
///
/// ```
/// use mend_core::example::Bench;
/// let bench = Bench::try_new().expect("the example");
/// use mend_core::heat::{mesh::Resolution, parameters::ParameterSample, run::{run, run_until}};
/// let melting = bench.composition.targets(&bench.board).expect("computed");
/// let (order, nominal) = (bench.order(), ParameterSample::nominal(&bench.board.stack));
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
    let rig = Rig::new(case, parameters, Model { resolution, linear: false });
    Runner { case, parameters, rig }.run(enough)
}

struct Runner<'a> {
    case: &'a Case<'a>,
    parameters: &'a ParameterSample,
    rig: Rig,
}

impl Runner<'_> {
    fn run(mut self, enough: &dyn Fn(&Run) -> bool) -> Run {
        let mut run = self.empty();
        let mut at_release = None;
        let mut second = 0;
        self.record(&mut run);
        'heating: for stage in 0..self.rig.stages.len() {
            self.rig.begin(stage);
            for _ in 0..self.rig.stages[stage].seconds {
                self.rig.one_second_melting(second, &mut run.melted);
                self.record(&mut run);
                second += 1;
                run.release = run.release.or_else(|| comes_away(&run.melted));
                if at_release.is_none() && run.release.is_some_and(|t| t <= second as f64) {
                    at_release = Some(self.rig.simulation.clone());
                }
                if self.case.watch.is_cancelled() || (at_release.is_some() && enough(&run)) {
                    break 'heating;
                }
            }
        }
        if let Some(hot) = at_release {
            self.rig.simulation = hot;
        }
        let last = self.rig.simulation.mesh().layers - 1;
        run.faces =
            [0, last].map(|layer| self.rig.simulation.layer(layer).iter().map(|t| t + self.ambient()).collect());
        run.cooling = run.release.map(|_| self.cool());
        run
    }

    fn ambient(&self) -> f32 {
        self.case.ambient.in_celsius() as f32
    }

    fn empty(&self) -> Run {
        let melts = self.case.melting.iter().map(|target| self.parameters.melts(target).melted.in_celsius());
        Run {
            melted: vec![None; self.rig.network.joints.len()],
            melts_at: melts.collect(),
            release: None,
            last_from: self.case.recipe.seconds_before() as f64,
            traces: Traces::from_network(&self.rig.network),
            cooling: None,
            faces: [Vec::new(), Vec::new()],
        }
    }

    fn record(&self, run: &mut Run) {
        run.traces.record(&self.rig.simulation, &self.rig.network, self.ambient());
    }

    fn celsius(&self, node: usize) -> f32 {
        self.rig.simulation.node(node) as f32 + self.ambient()
    }

    fn cool(&mut self) -> Cooling {
        let quiet = self.rig.quiet.clone();
        self.rig.simulation.set_air(&quiet);
        let mut found = Cooling {
            hold: None,
            warm: LONGEST_COOLING as f64,
            body_peak: self.celsius(self.rig.network.body),
            component_peaks: self.rig.network.components.iter().map(|k| self.celsius(*k)).collect(),
        };
        let mut warm = true;
        for second in 1..=LONGEST_COOLING {
            self.rig.one_second();
            self.climb(&mut found);
            let (simulation, nodes) = (&self.rig.simulation, &self.rig.network.nodes.nodes);
            let solid = |k: &usize| simulation.node_enthalpy(*k) <= nodes[*k].solid_to();
            if found.hold.is_none() && self.rig.network.joints.iter().all(solid) {
                found.hold = Some(second as f64);
            }
            let pads = mean(&self.rig.simulation, &self.rig.network.pads) + self.case.ambient.in_celsius();
            if warm && pads < WICKING_WARMTH.in_celsius() {
                found.warm = second as f64;
                warm = false;
            }
            if found.hold.is_some() && !warm {
                break;
            }
        }
        found
    }

    fn climb(&self, found: &mut Cooling) {
        found.body_peak = found.body_peak.max(self.celsius(self.rig.network.body));
        for (peak, node) in found.component_peaks.iter_mut().zip(&self.rig.network.components) {
            *peak = peak.max(self.celsius(*node));
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
