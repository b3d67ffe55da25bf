//! A component that was knocked off: the small plan by which it goes back.

use askama::Template;
use askama_web::WebTemplate;
use axum::extract::{Path, State};
use mend_core::board::{Component, ComponentKind};
use mend_core::caution::{Caution, DEFERENCE};
use mend_core::planning::put_back::{PutBack, put_back};
use mend_core::shop::Stop;
use mend_core::watch::Watch;

use super::super::{JobPath, number};
use crate::App;
use crate::computing::{Key, Progress, Viewer};
use crate::job::{HeatWork, Job};
use crate::pages::{Frame, JobHead};
use crate::planner::{Ordered, inputs_or_first, stations};
use crate::refusal::Refusal;
use crate::visitor::Visitor;
use crate::words::{self, Words};

/// The plan, in words.
struct BackView {
    liquid: String,
    chance: String,
    lines: Vec<String>,
    warnings: Vec<String>,
}

/// The part that is computed.
#[derive(Template, WebTemplate)]
#[template(path = "jobs/put_back_part.html")]
pub(crate) struct BackPart {
    part: Progress<BackView>,
    here: String,
}

#[derive(Template, WebTemplate)]
#[template(path = "jobs/put_back.html")]
pub(crate) struct BackPage {
    frame: Frame,
    head: JobHead,
    oob: bool,
    name: String,
    back: String,
    part: BackPart,
    cautions: [&'static str; 5],
}

/// What is asked: a component of a job.
struct BackQuestion {
    job: Job,
    component: Component,
    order: Ordered,
    key: Key<Option<PutBack>>,
    here: String,
}

impl BackQuestion {
    async fn load(app: &App, id: String, place: String) -> Result<Self, Refusal> {
        let job = Job::load(app, number(&JobPath::from(Path(id)))?).await?;
        let board = &job.board()?.1;
        let place: usize = place.parse().map_err(|_| Refusal::NotFound("component"))?;
        let component = board.components.get(place).cloned().ok_or(Refusal::NotFound("component"))?;
        let inputs = inputs_or_first(&job, HeatWork::Fit, &stations(app).await?)?;
        let order = Ordered::load(app, &job, &inputs).await?;
        let key = Key::put_back(format!("{place} {}", order.plan_key()?.of()));
        let here = format!("/jobs/{}/components/{place}/back", job.row.id);
        Ok(Self { job, component, order, key, here })
    }

    async fn part(&self, app: &App, words: Words) -> Result<BackPart, Refusal> {
        let (bundle, name) = (self.order.bundle.clone(), self.component.name.clone());
        let work = move |watch: &Watch| Ok(put_back(&bundle.order(watch), &name)?);
        let stand = app.computing.compute(Viewer::Fit(self.job.row.id), &self.key, work).await;
        let part = stand.shown(|found| match found.as_ref() {
            Some(plan) => view(plan, &self.component, words),
            None => unplanned(&self.component),
        })?;
        Ok(BackPart { part, here: self.here.clone() })
    }
}

/// Right way round, where there is one.
const fn way_round(component: &Component) -> Option<&'static str> {
    match component.what {
        Some(ComponentKind::MouldedCapacitor | ComponentKind::ElectrolyticCan) => {
            Some("Right way round: its mark to the board's, before any heat.")
        }
        Some(ComponentKind::Chip | ComponentKind::Crystal | ComponentKind::Microphone) => {
            Some("Right way round: pin 1 to the board's mark, before any heat.")
        }
        _ => None,
    }
}

fn view(plan: &PutBack, component: &Component, words: Words) -> BackView {
    let air = &plan.air;
    let hold = if plan.held {
        "Held down with tweezers from the side: this air would push it off its pads."
    } else {
        "It lies still in this air; tweezers ready, no pressure."
    };
    let mut lines = vec![
        format!("Pads wicked flat, a little {} on each, flux.", plan.alloy),
        format!(
            "{}, {:.0} L/min, {} mm nozzle {:.0} mm over it, {} face, held still.",
            words.temperature(air.set.in_celsius()),
            air.flow.in_litres_per_minute(),
            air.nozzle.in_mm(),
            air.distance.in_mm(),
            air.face.name(),
        ),
        hold.to_owned(),
        "It sinks and centres itself: air away, do not move until matt.".to_owned(),
    ];
    lines.splice(1..1, way_round(component).map(str::to_owned));
    let measured = component.value.map(|value| format!("Cold again: measure it, {value}."));
    lines.push(measured.unwrap_or_else(|| "Cold again: nudge it, and look at both its ends.".to_owned()));
    let melts = (!plan.also_melts.is_empty())
        .then(|| format!("The port's {} may let go meanwhile: nothing touches the port.", plan.also_melts.join(", ")));
    let hurts = plan.hurts.as_ref().map(|hurts| format!("In the other runs {} is hurt first.", words::damaged(hurts)));
    let near = plan.headroom_k.filter(|room| room.low < 10.0);
    let near =
        near.map(|room| format!("One in ten leaves it less than {} below its own limit.", words.apart(room.low)));
    BackView {
        liquid: words::release(&plan.liquid),
        chance: format!("{:.0} in 16 runs get it liquid with nothing hurt", 16.0 * plan.chance),
        lines,
        warnings: melts.into_iter().chain(hurts).chain(near).collect(),
    }
}

/// Of a thing that is not soldered, or with an alloy that nobody can compute.
fn unplanned(component: &Component) -> BackView {
    let what = format!("{} is not soldered by itself, or its alloy can't be computed.", component.name);
    BackView { liquid: "no plan".to_owned(), chance: String::new(), lines: vec![what], warnings: Vec::new() }
}

pub(crate) async fn show(
    State(app): State<App>,
    visitor: Visitor,
    Path((id, place)): Path<(String, String)>,
) -> Result<BackPage, Refusal> {
    let asked = BackQuestion::load(&app, id, place).await?;
    let part = asked.part(&app, visitor.words()).await?;
    Ok(BackPage {
        frame: Frame::new(asked.job.device(), visitor.scale, "bench", asked.here.clone()),
        head: JobHead::from_job(&asked.job, Some(Stop::Pins), app.now().date()),
        oob: false,
        name: asked.component.name.clone(),
        back: format!("/jobs/{}/components", asked.job.row.id),
        part,
        cautions: [
            Caution::Fumes.text(),
            Caution::Burns.text(),
            Caution::Alcohol.text(),
            Caution::Static.text(),
            DEFERENCE,
        ],
    })
}

/// How far is it?
pub(crate) async fn poll(
    State(app): State<App>,
    visitor: Visitor,
    Path((id, place)): Path<(String, String)>,
) -> Result<BackPart, Refusal> {
    BackQuestion::load(&app, id, place).await?.part(&app, visitor.words()).await
}

/// Nobody wants it any more.
pub(crate) async fn cancel(
    State(app): State<App>,
    Path((id, place)): Path<(String, String)>,
) -> Result<BackPart, Refusal> {
    let asked = BackQuestion::load(&app, id, place).await?;
    app.computing.cancel(&asked.key);
    Ok(BackPart { part: Progress::Cancelled, here: asked.here })
}

/// Now it is wanted after all.
pub(crate) async fn again(
    state: State<App>,
    visitor: Visitor,
    Path((id, place)): Path<(String, String)>,
) -> Result<BackPart, Refusal> {
    state.0.computing.forget(&BackQuestion::load(&state.0, id.clone(), place.clone()).await?.key);
    poll(state, visitor, Path((id, place))).await
}

#[cfg(test)]
mod tests {
    use mend_core::board::{Face, Point, Rect};
    use mend_core::planning::band::{Band, TimeBand};

    use super::*;
    use crate::fixture::planned;

    #[test]
    fn the_plan_says_what_it_is_set_to_what_to_beware_of_and_what_to_measure() {
        let body = Rect { centre: Point { x: 3.0, y: 4.5 }, width: 3.0, depth: 2.0 };
        let moulded = ComponentKind::MouldedCapacitor.at("C7", Face::Top, body);
        let component = Component { value: "100 uF".parse().ok(), ..moulded };
        let plan = PutBack {
            component: "C7".to_owned(),
            alloy: "SAC305".to_owned(),
            air: planned().0.settings.air.expect("hot air"),
            liquid: TimeBand { low_s: Some(12.0), mid_s: Some(18.0), high_s: Some(25.0), share: 1.0 },
            chance: 0.75,
            hurts: None,
            headroom_k: Some(Band { low: 4.0, mid: 12.0, high: 20.0 }),
            also_melts: vec!["row A".to_owned()],
            held: true,
        };
        let shown = view(&plan, &component, Words::default());
        assert!(
            shown.chance.starts_with("12 in 16") && shown.lines[1].starts_with("Right way round"),
            "{:?}",
            shown.lines
        );
        assert_eq!(shown.lines.last().map(String::as_str), Some("Cold again: measure it, 100 µF."));
        assert!(shown.warnings[0].contains("row A") && shown.warnings[1].contains("4 K"), "{:?}", shown.warnings);
    }
}
