//! What probes and jobs have taught of a board, and how what was predicted and what came agreed: as the plan had it, and with what
//! its own job taught.

use mend_core::calibration::lesson::known_at;
use mend_core::heat::known::{Belief, Knowledge, Teachable};
use mend_core::watch::Watch;
use mend_formats::bundle::Bundle;
use mend_formats::station;
use mend_store::LessonRow;

use crate::App;
use crate::jet_drift::day;
use crate::known::{Setup, counting};
use crate::learning::JobLesson;
use crate::planner::usual_bundle;
use crate::refusal::Refusal;
use crate::visitor::Visitor;
use crate::words::{capital, release_band, teachable};

/// What can be learnt of a board.
const OF_BOARD: [Teachable; 2] = [Teachable::Conduction, Teachable::Capacity];

/// A thing that is known, more or less.
pub(super) struct BoardThing {
    pub(super) what: String,
    pub(super) now: String,
    pub(super) before: String,
}

/// A lesson of the board.
pub(super) struct BoardLesson {
    pub(super) when: String,
    pub(super) what: String,
    /// The job, where one taught it.
    pub(super) job: Option<i64>,
    pub(super) line: String,
    pub(super) left_out: Option<String>,
}

/// All of it.
pub(super) struct BoardTaught {
    pub(super) things: Vec<BoardThing>,
    pub(super) lessons: Vec<BoardLesson>,
}

impl BoardTaught {
    /// None where nothing has taught anything yet.
    pub(super) async fn load(app: &App, board: i64, visitor: Visitor) -> Result<Option<Self>, Refusal> {
        let rows = app.reading(move |read| read.lessons_of_board(board)).await?;
        if rows.is_empty() {
            return Ok(None);
        }
        let setup = Setup { station: 0, board: Some(board), nozzle: None };
        let things = blind(app, board).await?.map_or_else(Vec::new, |blind| {
            let now = blind.taught(&known_at(&counting(&rows, setup), app.now_ms() as f64 / 1000.0, &blind));
            let said = |belief: &Belief, what| visitor.words().believed(what, belief.band(what));
            let thing =
                |what| BoardThing { what: capital(teachable(what)), now: said(&now, what), before: said(&blind, what) };
            OF_BOARD.map(thing).into()
        });
        let zone = app.now().time_zone().clone();
        let lessons = rows.iter().rev().map(|row| line(row, day(row.taught_ms, &zone))).collect();
        Ok(Some(Self { things, lessons }))
    }
}

fn line(row: &LessonRow, when: String) -> BoardLesson {
    let job: Option<JobLesson> = serde_json::from_str(&row.lesson.entered).ok();
    BoardLesson {
        when,
        what: row.lesson.job_id.map_or_else(|| "Probe".to_owned(), |job| format!("Job {job}")),
        job: row.lesson.job_id,
        line: job.map_or_else(|| row.lesson.figures.clone(), |job| agreed(&job)),
        left_out: row.left_out.clone(),
    }
}

/// What was expected, what came, and what is expected of the same now.
fn agreed(job: &JobLesson) -> String {
    let [before, after] = [job.before_s, job.after_s].map(release_band);
    let within = |[low, _, high]: [Option<f64>; 3]| {
        let inside = low.is_some_and(|low| low <= job.moved_s) && high.is_none_or(|high| job.moved_s <= high);
        if inside { "within" } else { "outside" }
    };
    format!(
        "Moved after {:.0} s, {} the {before} expected; by what it taught {after}",
        job.moved_s,
        within(job.before_s)
    )
}

/// What is guessed of the board before anything was learnt: as a usual plan with the shop's first station has it.
async fn blind(app: &App, board: i64) -> Result<Option<Belief>, Refusal> {
    let (stations, row) = app.reading(move |read| Ok((read.stations()?, read.board(board)?))).await?;
    let station = stations.iter().find(|row| row.retired_ms.is_none());
    let (Some(station), Some(row)) = (station, row) else { return Ok(None) };
    let (file, parsed) = (station::read(station.file.as_bytes())?, mend_formats::board::parse(row.file.as_bytes())?);
    let bundle = usual_bundle(app, station.id, &file, (board, parsed)).await?.0;
    let bundle = Bundle { known: Knowledge::NOTHING, ..bundle };
    let watch = Watch::new();
    Ok(Some(Belief::blind(&bundle.order(&watch).case(&[]))))
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_job_is_told_by_what_was_expected_and_what_came() {
        let lesson = JobLesson {
            moved_s: 71.0,
            before_s: [Some(38.0), Some(50.0), Some(62.0)],
            after_s: [Some(52.0), Some(60.0), Some(80.0)],
        };
        assert_eq!(agreed(&lesson), "Moved after 71 s, outside the 38–62 s expected; by what it taught 52–80 s");
    }
}
