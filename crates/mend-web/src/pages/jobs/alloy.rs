//! The alloy stop: what the joints hold, what is fed to which of them, and what that melts at.

use askama::Template;
use askama_web::WebTemplate;
use axum::extract::State;
use axum::http::StatusCode;
use axum::response::{IntoResponse, Response};
use mend_core::board::{Board, groups};
use mend_core::finding::{Finding, any_blocking};
use mend_core::materials::ALLOYS;
use mend_core::shop::Stop;
use mend_core::solder::CompositionEntry;
use mend_core::solder::{MakersMark, Mixing, share_for};

use super::alloy_form::{AlloyForm, read};
use super::alloy_view::{AlloyOfJob, AlloyView};
use super::{JobPath, number};
use crate::App;
use crate::extract::Form;
use crate::job::Job;
use crate::pages::{Frame, JobHead};
use crate::refusal::Refusal;
use crate::visitor::Visitor;
use crate::words::FindingView;

/// A row of the connector as it may be ticked.
struct RowTick {
    name: String,
    hidden: bool,
    fed: bool,
}

#[derive(Template, WebTemplate)]
#[template(path = "jobs/alloy.html")]
struct AlloyPage {
    frame: Frame,
    head: JobHead,
    oob: bool,
    job: i64,
    alloys: Vec<&'static str>,
    marks: [MakersMark; 4],
    typed: AlloyForm,
    rows: Vec<RowTick>,
    view: Result<AlloyView, Vec<FindingView>>,
}

/// The part that a change replaces; with the slider where an amount was asked for.
#[derive(Template, WebTemplate)]
#[template(path = "jobs/alloy_fragment.html")]
struct AlloyFragment {
    head: JobHead,
    oob: bool,
    job: i64,
    typed: AlloyForm,
    found: bool,
    view: Result<AlloyView, Vec<FindingView>>,
}

pub(crate) async fn show(State(app): State<App>, visitor: Visitor, path: JobPath) -> Result<Response, Refusal> {
    let job = Job::load(&app, number(&path)?).await?;
    let board = job.board()?.1.clone();
    let file = job.composition_entry();
    if job.composition.is_none() && !job.is_closed() {
        // What is shown is what is kept: a technician who agrees with the guess has nothing to type.
        keep(&app, job.row.id, &file).await?;
    }
    let job = Job::load(&app, job.row.id).await?;
    let fed = |name: &str, hidden: bool| file.feed.as_ref().map_or(!hidden, |feed| feed.rows.iter().any(|r| r == name));
    let rows =
        groups(&board).into_iter().map(|g| RowTick { fed: fed(&g.name, g.hidden), hidden: g.hidden, name: g.name });
    let page = AlloyPage {
        frame: Frame::new(job.device(), visitor.scale, "bench", format!("/jobs/{}/alloy", job.row.id)),
        head: JobHead::from_job(&job, Some(Stop::Alloy), app.now().date()),
        oob: false,
        job: job.row.id,
        alloys: ALLOYS.iter().map(|a| a.name).collect(),
        marks: MakersMark::ALL,
        typed: AlloyForm::from_entry(&file, visitor.scale),
        rows: rows.collect(),
        view: view(&job, &board, &file, visitor).map_err(|findings| visitor.words().findings(&findings)),
    };
    Ok(page.into_response())
}

pub(crate) async fn change(
    State(app): State<App>,
    visitor: Visitor,
    path: JobPath,
    Form(sent): Form<Vec<(String, String)>>,
) -> Result<Response, Refusal> {
    let job = Job::load(&app, number(&path)?).await?;
    let board = job.board()?.1.clone();
    let (mut file, wanted) = match read(&sent, visitor.scale) {
        Ok(read) => read,
        Err(findings) => {
            let file = job.composition_entry();
            return fragment(&app, visitor, &job, AlloyAnswer { file, found: false, view: Err(findings) });
        }
    };
    let found = wanted.map(|wanted| share_that_works(&board, &file, wanted)).transpose();
    let found = match found {
        Ok(share) => share,
        Err(findings) => {
            return fragment(&app, visitor, &job, AlloyAnswer { file, found: false, view: Err(findings) });
        }
    };
    if let (Some(share), Some(feed)) = (found, file.feed.as_mut()) {
        feed.mixing_fraction = share;
    }
    keep(&app, job.row.id, &file).await?;
    let job = Job::load(&app, job.row.id).await?;
    let view = view(&job, &board, &file, visitor);
    fragment(&app, visitor, &job, AlloyAnswer { file, found: found.is_some(), view })
}

/// What is answered to a change.
struct AlloyAnswer {
    file: CompositionEntry,
    /// Its share was sought.
    found: bool,
    view: Result<AlloyView, Vec<Finding>>,
}

fn fragment(app: &App, visitor: Visitor, job: &Job, answer: AlloyAnswer) -> Result<Response, Refusal> {
    let AlloyAnswer { file, found, view } = answer;
    let status = if view.is_ok() { StatusCode::OK } else { StatusCode::UNPROCESSABLE_ENTITY };
    let head = JobHead::from_job(job, Some(Stop::Alloy), app.now().date());
    let typed = AlloyForm::from_entry(&file, visitor.scale);
    let view = view.map_err(|findings| visitor.words().findings(&findings));
    let fragment = AlloyFragment { head, oob: true, job: job.row.id, typed, found, view };
    Ok((status, fragment).into_response())
}

async fn keep(app: &App, job: i64, file: &CompositionEntry) -> Result<(), Refusal> {
    let text = mend_formats::composition::write(file)?;
    let now = app.now_ms();
    app.changing(job, move |w| w.set_composition(job, &text, now)).await
}

/// The least share with which every fed row melts at the wanted temperature.
fn share_that_works(
    board: &Board,
    file: &CompositionEntry,
    wanted: mend_core::units::Temperature,
) -> Result<f64, Vec<Finding>> {
    let composition = file.composition()?;
    let object = |message: String, hint: &str| vec![Finding::written("feed", "want", message).hint(hint)];
    let Some(feed) = &composition.feed else {
        return Err(object("nothing is fed yet".to_owned(), "name the alloy that is to be fed first"));
    };
    let mut most = 0.0_f64;
    for group in groups(board).iter().filter(|group| feed.rows.contains(&group.name)) {
        let Mixing([_, usual, _]) = Mixing::for_group(group);
        let share =
            share_for(&composition.factory.composition, &feed.metal.composition, usual, wanted).ok_or_else(|| {
                let message = format!("{} can't bring {} there, whatever the amount", feed.metal.name, group.name);
                object(message, "feed an alloy that melts lower, or want a higher temperature")
            })?;
        most = most.max(share);
    }
    Ok((most * 100.0).ceil() / 100.0)
}

fn view(job: &Job, board: &Board, file: &CompositionEntry, visitor: Visitor) -> Result<AlloyView, Vec<Finding>> {
    let composition = file.composition()?;
    let objections = composition.check(board);
    if any_blocking(&objections) {
        return Err(objections);
    }
    let plan = job.planned.as_ref().map(|planned| &planned.plan);
    Ok(AlloyView::from_composition(AlloyOfJob { board, composition: &composition, file, plan }, visitor.words()))
}
