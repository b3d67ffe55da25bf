//! What a job taught, once it is given back: computed in the background and kept as a lesson of its station and its board.

use mend_core::board::Board;
use mend_core::calibration::observation::Observation;
use mend_core::calibration::reading_fault::counted;
use mend_core::heat::known::{Belief, Teachable};
use mend_core::planning::bench_run::{Cue, Stamp};
use mend_core::planning::learnt::{Learnt, Observed};
use mend_core::planning::live::seen;
use mend_formats::lesson;
use mend_store::{NewLesson, ReadingRow};
use serde::{Deserialize, Serialize};

use crate::App;
use crate::computing::Viewer;
use crate::job::{BenchRunView, HeatWork, Job};
use crate::planner::{Ordered, station_named};
use crate::refusal::Refusal;
use crate::words::{Words, release_band, teachable};

/// What moved and narrowed together by less than this part of its spread is not spoken of.
const TOLD: f64 = 0.05;

/// What a lesson of a job was made from and what came of it, for those who draw it. Times are s of the last stage's air.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
pub(crate) struct JobLesson {
    /// As stamped.
    pub(crate) moved_s: f64,
    /// As the plan had it: one in ten sooner, the middle, one in ten later or never.
    pub(crate) before_s: [Option<f64>; 3],
    /// As the same plan has it now.
    pub(crate) after_s: [Option<f64>; 3],
}

/// Has a job's run something to teach: a first heating of a cold board that came to its end?
pub(crate) fn teaches(job: &Job) -> bool {
    job.bench.as_ref().is_some_and(|bench| bench.state.release().is_some())
}

/// Computes, in the background, the lessons of all jobs that wait for theirs.
pub(crate) fn learn_all(app: &App) {
    let app = app.clone();
    tokio::spawn(async move {
        let waiting = app.reading(|read| read.jobs_to_learn()).await.unwrap_or_default();
        for id in waiting {
            if let Err(refusal) = learn(&app, id).await {
                tracing::warn!(id, ?refusal, "a job teaches nothing");
                let _ = app.writing(move |write| write.end_lesson(id, None)).await;
            }
        }
    });
}

/// The lesson of one job, kept.
async fn learn(app: &App, id: i64) -> Result<(), Refusal> {
    let job = Job::load(app, id).await?;
    let (bench, (board_id, board)) = (job.bench()?, job.board()?.clone());
    let stamp = bench.state.release().ok_or(Refusal::NotYet("Nothing came away from a cold board"))?;
    let inputs = &bench.planned.inputs;
    let (order, station) = (Ordered::load(app, &job, inputs).await?, station_named(app, &inputs.station).await?);
    let run = bench.run.id;
    let readings = app.reading(move |read| read.run_readings(run)).await?;
    let observed = observed(bench, stamp, &board, &readings);
    let learnt = order.learnt(app, Viewer::heat(HeatWork::Removal, id), observed).await?;
    let from_s = inputs.settings.seconds_before() as f64;
    let of_air = |band: [Option<f64>; 3]| band.map(|at| at.map(|at| at - from_s));
    let [before_s, after_s] = learnt.release_s.map(of_air);
    let entered = JobLesson { moved_s: stamp.seconds, before_s, after_s };
    let lesson = NewLesson {
        kind: "job".to_owned(),
        station_id: station.id,
        nozzle_mm: inputs.settings.air.map(|air| air.nozzle.in_mm()),
        board_id: Some(board_id),
        job_id: Some(id),
        says: lesson::write(&learnt.says)?,
        figures: figures(&learnt, &entered),
        entered: serde_json::to_string(&entered)?,
    };
    let now = app.now_ms();
    app.writing(move |write| write.end_lesson(id, Some((&lesson, now)))).await
}

/// What was read and seen of a heating: a thermocouple, rows that shone, and the part that moved.
fn observed(bench: &BenchRunView, stamp: &Stamp, board: &Board, readings: &[ReadingRow]) -> Observed {
    let from_s = bench.planned.inputs.settings.seconds_before() as f64;
    let here = |cue: &&Cue| cue.begun_ms == stamp.begun_ms;
    let mut all = seen(board, from_s, bench.state.cues.iter().filter(here));
    all.push(Observation::Moved { at_s: from_s + stamp.seconds });
    let read = readings.iter().filter(|row| row.begun_ms == stamp.begun_ms);
    let read = read.filter_map(|row| Some([from_s + row.after_ms as f64 / 1000.0, row.celsius?]));
    let read = counted(read, from_s + stamp.seconds);
    let thermocouples = if read.is_empty() { Vec::new() } else { vec![bench.bead(board)] };
    all.extend(read);
    Observed { thermocouples, observations: all }
}

/// In a line: what changed most of what is known, and what that does to the next plan.
fn figures(learnt: &Learnt, entered: &JobLesson) -> String {
    let [before, after] = &learnt.beliefs;
    let told = |what: &Teachable| {
        let (was, k) = (before.spread(*what), *what as usize);
        let (moved, narrowed) = ((after.mean[k] - before.mean[k]).abs() / was, 1.0 - after.spread(*what) / was);
        moved + narrowed
    };
    let most = Teachable::ALL.into_iter().filter(|what| told(what) > TOLD).max_by(|a, b| told(a).total_cmp(&told(b)));
    let known = most.map_or_else(|| "as expected".to_owned(), |what| changed(what, before, after));
    let [before, after] = [entered.before_s, entered.after_s].map(release_band);
    format!("It moved after {:.0} s: {known}. The same plan: release {before} became {after}.", entered.moved_s)
}

fn changed(what: Teachable, before: &Belief, after: &Belief) -> String {
    let words = Words::default();
    let [was, is] = [before, after].map(|belief| words.believed(what, belief.band(what)));
    format!("{} {is}, was {was}", teachable(what))
}

#[cfg(test)]
mod tests {
    use mend_core::example::Bench;

    use super::*;

    #[test]
    fn a_late_release_is_told_with_what_it_changed() {
        let bench = Bench::try_new().expect("the example");
        let learnt = Learnt::try_new(
            &bench.order(),
            &Observed { observations: vec![Observation::Moved { at_s: 200.0 }], ..Observed::default() },
        )
        .expect("it can be computed");
        let [before_s, after_s] = learnt.release_s;
        let line = figures(&learnt, &JobLesson { moved_s: 200.0, before_s, after_s });
        assert!(line.starts_with("It moved after 200 s: heat of the jet −"), "{line}");
        assert!(line.contains("The same plan: release ") && line.contains(" became "), "{line}");
    }
}
