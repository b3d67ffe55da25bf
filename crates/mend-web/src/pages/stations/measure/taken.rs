//! A measurement that is taken: what it changes in the station's file, what it teaches, and what that does to a usual plan.

use askama::Template;
use askama_web::WebTemplate;
use axum::extract::{Path, State};
use axum::response::Redirect;
use mend_core::board::Board;
use mend_core::calibration::next_release::{ReleaseBand, releases};
use mend_core::finding::Finding;
use mend_core::heat::case::Case;
use mend_core::heat::known::{Belief, Knowledge, Teachable};
use mend_core::planning::order::Unplanned;
use mend_core::watch::Watch;
use mend_formats::board;
use mend_formats::bundle::Bundle;
use mend_formats::lesson;
use mend_formats::station::{self, StationFile};
use mend_store::NewLesson;

use super::super::edit::{list_open_jobs, load};
use super::{Measuring, Taught, flow, iron, outlet};
use crate::App;
use crate::computing::{Key, Progress, Stand, Viewer};
use crate::job::Job;
use crate::known::NOZZLE_AIR;
use crate::planner::usual_bundle;
use crate::refusal::Refusal;
use crate::visitor::Visitor;
use crate::words::release_band;

/// What a measurement comes to.
pub(super) struct Measurement {
    /// The station as it is with it.
    pub(super) file: StationFile,
    pub(super) taught: Taught,
}

/// What can be said of a measurement so far: nothing yet, what it comes to, or what can't be read.
pub(super) type SoFar = Result<Option<Measurement>, Vec<Finding>>;

/// Of a kind of measurement.
fn so_far(kept: &Measuring, kind: &str, visitor: Visitor) -> SoFar {
    match kind {
        flow::KIND => flow::taken(kept),
        outlet::KIND => outlet::taken(kept, visitor),
        iron::KIND => iron::taken(kept, visitor),
        _ => Ok(None),
    }
}

impl Measurement {
    /// Keeps the file and the lesson together, and ends the measurement.
    pub(super) async fn keep(self, app: &App, kept: &Measuring) -> Result<Redirect, Refusal> {
        let Self { file, taught: Taught { kind, on, says, figures } } = self;
        file.clone().into_station()?;
        let lesson = NewLesson {
            kind: kind.to_owned(),
            station_id: kept.id,
            nozzle_mm: on.map(|on| on.nozzle_mm),
            board_id: on.map(|on| on.board_id),
            job_id: None,
            says: lesson::write(&says)?,
            entered: serde_json::to_string(&kept.fields)?,
            figures,
        };
        let (id, name, text, now) = (kept.id, file.name.clone(), station::write(&file)?, app.now_ms());
        let measured = kept.kind;
        app.writing(move |write| {
            write.set_station(id, &name, &text)?;
            write.add_lesson(&lesson, now)?;
            // A lesson may be of another kind than the measurement that taught it: once what was entered stayed, and was taken again.
            write.end_measuring(id, measured)
        })
        .await?;
        list_open_jobs(app).await?;
        Ok(Redirect::to(&format!("/stations/{id}#known")))
    }

    /// What is known once it is kept, of what was.
    fn known(&self, before: &Bundle) -> Knowledge {
        let known = if self.taught.kind == NOZZLE_AIR {
            // What was learnt of an offset was an offset from other air.
            let others: Vec<Teachable> = Teachable::ALL.into_iter().filter(|what| *what != Teachable::Outlet).collect();
            let blind = Bundle { known: Knowledge::NOTHING, ..before.clone() };
            before.known.of(&others, &Belief::blind(&blind.order(&Watch::new()).case(&[])))
        } else {
            before.known
        };
        known.and(&self.taught.says)
    }
}

/// What it does to a usual plan on a board of the shop, computed in the background.
#[derive(Template, WebTemplate)]
#[template(path = "stations/measure/plan_change.html")]
pub(crate) struct PlanChange {
    url: String,
    board: String,
    part: Option<Progress<String>>,
}

/// The board of the newest open job; else the first that there is.
async fn board_of(app: &App) -> Result<Option<(i64, Board)>, Refusal> {
    for listed in app.reading(|read| read.open_jobs()).await?.iter().rev() {
        if let Ok(found) = Job::load(app, listed.job_id).await?.board() {
            return Ok(Some(found.clone()));
        }
    }
    let rows = app.reading(|read| read.boards()).await?;
    let first = rows.first().map(|row| Ok::<_, Refusal>((row.id, board::parse(row.file.as_bytes())?)));
    first.transpose()
}

/// When the part comes away before and after.
async fn change(
    app: &App,
    kept: &Measuring,
    taken: &Measurement,
    board: (i64, Board),
) -> Result<Stand<[ReleaseBand; 2]>, Refusal> {
    let ((before, was), (after, is)) = tokio::try_join!(
        usual_bundle(app, kept.id, &kept.file, board.clone()),
        usual_bundle(app, kept.id, &taken.file, board.clone()),
    )?;
    let after = Bundle { known: taken.known(&before), recipe: before.recipe.clone(), ..after };
    let says = lesson::write(&taken.taught.says)?;
    let key = Key::releases(format!("{} {was} {is} {says}", board.0));
    let work = move |watch: &Watch| {
        let [was, is] = [&before, &after].map(|bundle| bundle.order(watch));
        let melting = was.composition.targets(was.board).map_err(Unplanned::from)?;
        let cases: [Case<'_>; 2] = [was.case(&melting), is.case(&melting)];
        Ok(releases([&cases[0], &cases[1]]).map_err(Unplanned::from)?)
    };
    Ok(app.computing.compute(Viewer::Probe(kept.id), &key, work).await)
}

/// In a sentence.
fn sentence(found: &[ReleaseBand; 2]) -> String {
    let [before, after] = found.map(release_band);
    if before == after { format!("release stays {after}") } else { format!("release {before} becomes {after}") }
}

pub(crate) async fn plan(
    State(app): State<App>,
    visitor: Visitor,
    Path((id, kind)): Path<(String, String)>,
) -> Result<PlanChange, Refusal> {
    let id = load(&app, &Path(id)).await?.id;
    let kind = super::KINDS.into_iter().find(|known| *known == kind).ok_or(Refusal::NotFound("measurement"))?;
    let kept = Measuring::load(&app, &Path(id.to_string()), kind).await?;
    let url = format!("/stations/{id}/measure/{kind}/plan");
    let nothing = |url| PlanChange { url, board: String::new(), part: None };
    let Ok(Some(taken)) = so_far(&kept, kind, visitor) else { return Ok(nothing(url)) };
    let Some(board) = board_of(&app).await? else { return Ok(nothing(url)) };
    let name = board.1.name.clone();
    if kind == iron::KIND {
        let part = iron::tip_change(&board.1, [&kept.file.iron, &taken.file.iron]);
        return Ok(PlanChange { url, board: name, part: Some(Progress::Ready(part)) });
    }
    let part = change(&app, &kept, &taken, board).await?.shown(|found| sentence(&found))?;
    Ok(PlanChange { url, board: name, part: Some(part) })
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_plan_that_stays_is_not_said_to_become_itself() {
        let band = [Some(40.0), Some(50.0), Some(60.0)];
        assert!(sentence(&[band, band]).starts_with("release stays "));
        assert!(sentence(&[band, [Some(30.0), Some(35.0), None]]).contains(" becomes "));
    }
}
