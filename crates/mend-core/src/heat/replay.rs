//! A run to look at: both faces and every curve from the first tool until the board has cooled.

use super::case::Case;
use super::mesh::Resolution;
use super::parameters::ParameterSample;
use super::rig::{Model, Rig};
use super::run::{WICKING_WARMTH, comes_away};
use super::traces::Traces;
use super::under::mean;
use crate::watch::Cancelled;

/// Longest cooling that is shown, s.
const LONGEST_COOLING: usize = 120;

/// The nominal run on the plan's own grid.
#[derive(Debug, Clone)]
pub struct Replay {
    /// Cell borders along x, mm.
    pub x_mm: Vec<f64>,
    /// Cell borders along y, mm.
    pub y_mm: Vec<f64>,
    /// Which columns are board.
    pub inside: Vec<bool>,
    /// Seconds from frame to frame.
    pub every_s: usize,
    /// Top and bottom by column, °C.
    pub frames: Vec<[Vec<f32>; 2]>,
    /// Every curve, °C at every second.
    pub traces: Traces,
    /// For each joint, when it was all liquid, s.
    pub melted: Vec<Option<f64>>,
    /// When the last stage began, s.
    pub last_from: f64,
    /// When all went off: at release, or at giving up; s.
    pub off: f64,
    /// Did the part come away?
    pub released: bool,
}

/// Runs a case to its release, to its longest heating if that never comes, and lets it cool to where braid sticks. At most
/// `frames` pairs of faces are kept, evenly.
///
/// ```
/// use mend_core::example::Bench;
/// let bench = Bench::try_new().expect("the example");
/// use mend_core::heat::replay::replay;
/// let melting = bench.composition.targets(&bench.board).expect("computed");
/// let order = bench.order();
/// let recording = replay(&order.case(&melting), 20).expect("nobody cancels");
/// assert!(recording.frames.len() <= 20 && recording.every_s >= 1);
/// ```
pub fn replay(case: &Case<'_>, frames: usize) -> Result<Replay, Cancelled> {
    let parameters = ParameterSample::middle(case);
    let rig = Rig::new(case, &parameters, Model { resolution: Resolution::FINE, linear: false });
    let most = case.recipe.seconds();
    case.watch.expect(most);
    let mesh = rig.simulation.mesh();
    let replay = Replay {
        x_mm: mesh.x.borders().to_vec(),
        y_mm: mesh.y.borders().to_vec(),
        inside: mesh.inside.clone(),
        every_s: 1,
        frames: Vec::new(),
        traces: Traces::from_network(&rig.network),
        melted: vec![None; rig.network.joints.len()],
        last_from: case.recipe.seconds_before() as f64,
        off: most as f64,
        released: false,
    };
    Recorder { case, rig, replay, second: 0, most_frames: frames }.record_all()
}

struct Recorder<'a> {
    case: &'a Case<'a>,
    rig: Rig,
    replay: Replay,
    second: usize,
    most_frames: usize,
}

impl Recorder<'_> {
    fn record_all(mut self) -> Result<Replay, Cancelled> {
        self.record();
        'heating: for stage in 0..self.rig.stages.len() {
            self.rig.begin(stage);
            for _ in 0..self.rig.stages[stage].seconds {
                if self.second as f64 >= self.replay.off {
                    break 'heating;
                }
                self.case.watch.wanted()?;
                self.rig.one_second_melting(self.second, std::array::from_mut(&mut self.replay.melted));
                self.second += 1;
                self.record();
                self.case.watch.one_done();
                self.notice_release();
            }
        }
        self.replay.off = self.second as f64;
        self.rig.simulation.set_airs(&self.rig.quiet);
        for _ in 0..LONGEST_COOLING {
            let pads = mean(&self.rig.simulation.of(0), &self.rig.network.pads) + self.case.ambient.in_celsius();
            if pads < WICKING_WARMTH.in_celsius() {
                break;
            }
            self.rig.one_second();
            self.second += 1;
            self.record();
        }
        Ok(self.replay)
    }

    fn notice_release(&mut self) {
        if let (false, Some(release)) = (self.replay.released, comes_away(&self.replay.melted)) {
            self.replay.off = self.replay.off.min(release.ceil());
            self.replay.released = true;
        }
    }

    fn record(&mut self) {
        let ambient = self.case.ambient.in_celsius() as f32;
        self.replay.traces.record(&self.rig.simulation.of(0), &self.rig.network, ambient);
        if self.second.is_multiple_of(self.replay.every_s) {
            let last = self.rig.simulation.mesh().layers - 1;
            let face = |layer| self.rig.simulation.layer(layer).iter().map(|t| t + ambient).collect();
            self.replay.frames.push([0, last].map(face));
            self.thin();
        }
    }

    /// Once there are more frames than are wanted, every second one goes: a run of an hour needs no more room than one of a
    /// minute.
    fn thin(&mut self) {
        if self.replay.frames.len() > self.most_frames {
            let mut keep = false;
            self.replay.frames.retain(|_| {
                keep = !keep;
                keep
            });
            self.replay.every_s *= 2;
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::example::Bench;

    #[test]
    fn a_recording_begins_cold_and_keeps_no_more_frames_than_asked_for() {
        let bench = Bench::try_new().expect("the example");
        let melting = bench.composition.targets(&bench.board).expect("computed");
        let order = bench.order();
        let recording = replay(&order.case(&melting), 12).expect("nobody cancels");
        assert!((2..=12).contains(&recording.frames.len()), "{}", recording.frames.len());
        let columns = (recording.x_mm.len() - 1) * (recording.y_mm.len() - 1);
        assert_eq!(recording.inside.len(), columns);
        assert!((recording.traces.body[0] - 23.0).abs() < 0.5, "{}", recording.traces.body[0]);
        assert!(recording.off >= recording.last_from);
        assert_eq!(recording.released, recording.melted.iter().all(Option::is_some));
    }
}
