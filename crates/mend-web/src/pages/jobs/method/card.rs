//! The steps on a card to print: for a bench without a screen.

use askama::Template;
use askama_web::WebTemplate;
use axum::extract::State;
use axum::response::{IntoResponse, Response};
use mend_core::caution::{Caution, DEFERENCE};
use mend_core::planning::sequence::stages::tools;
use mend_core::planning::sequence::step::{Step, StepKind};

use super::super::plan_view::seconds;
use super::super::recipe_lines::shield_maps;
use super::super::run::in_words;
use super::super::{JobPath, number};
use super::comparison_view::release;
use crate::App;
use crate::draw::board_map::BoardMap;
use crate::job::Job;
use crate::pages::{Frame, window_word};
use crate::planner::stations;
use crate::refusal::Refusal;
use crate::visitor::Visitor;
use crate::words::StepWords;

struct CardStep {
    step: StepWords,
    /// Tools and times, in a line.
    figures: String,
}

#[derive(Template, WebTemplate)]
#[template(path = "jobs/method/card.html")]
struct CardPage {
    frame: Frame,
    job: i64,
    device: String,
    method: &'static str,
    window: &'static str,
    board: String,
    station: String,
    steps: Vec<CardStep>,
    cautions: Vec<Caution>,
    deference: &'static str,
    maps: Vec<BoardMap>,
}

pub(crate) async fn show(State(app): State<App>, visitor: Visitor, path: JobPath) -> Result<Response, Refusal> {
    let job = Job::load(&app, number(&path)?).await?;
    let planned = job.current_plan().ok_or(Refusal::NotYet("There is no heat plan to write a card from yet"))?;
    let board = &job.board()?.1;
    let composition = planned.inputs.composition()?;
    let steps = planned.steps(&job.workplace()?, &composition);
    let mut cautions: Vec<Caution> = Vec::new();
    for caution in steps.iter().flat_map(|step| &step.cautions) {
        if !cautions.contains(caution) {
            cautions.push(*caution);
        }
    }
    let recipe = &planned.inputs.settings;
    let hot = tools(recipe.air.as_ref(), &recipe.during);
    let heat = in_words(&hot, visitor.scale);
    let figures = |step: &Step| figures(step, &heat, visitor);
    let stations = stations(&app).await?;
    let station = stations.iter().find(|station| station.name == planned.inputs.station);
    let card = CardPage {
        frame: Frame::new(
            format!("Card, job {}", job.row.id),
            visitor.scale,
            "bench",
            format!("/jobs/{}/card", job.row.id),
        ),
        job: job.row.id,
        device: job.device().to_owned(),
        method: planned.inputs.method.as_ref().map_or("by hand", |choice| visitor.words().method(choice.family).name),
        window: window_word(planned.plan.window),
        board: board.name.clone(),
        station: planned.inputs.station.clone(),
        maps: shield_maps(board, station, recipe, visitor.scale),
        steps: steps
            .into_iter()
            .map(|step| CardStep { figures: figures(&step), step: visitor.words().step(&step) })
            .collect(),
        cautions,
        deference: DEFERENCE,
    };
    Ok(card.into_response())
}

fn figures(step: &Step, heat: &str, visitor: Visitor) -> String {
    match &step.kind {
        StepKind::Do => String::new(),
        StepKind::Set { fit: None } => "until it sinks".to_owned(),
        StepKind::Set { fit: Some(fit) } => {
            let hot = in_words(&fit.tools, visitor.scale);
            format!("{hot}; {}; stop at {:.0} s", release(&fit.liquid, 0), fit.abort_s)
        }
        StepKind::Heat { release: band, abort_s } => format!("{heat}; {}; stop at {abort_s:.0} s", release(band, 0)),
        StepKind::Soak { lasts_s, tools } => format!("{}; {lasts_s:.0} s", in_words(tools, visitor.scale)),
        StepKind::WhileWarm { window_s } => format!("warm enough for {}", seconds(*window_s)),
        StepKind::Hold { until_s } => format!("solid after {}", seconds(*until_s)),
    }
}
