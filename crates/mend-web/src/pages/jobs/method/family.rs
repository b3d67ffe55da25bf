//! One family on this job: how it works, what goes wrong, the techniques, and the thorough search for its settings.

use askama::Template;
use askama_web::WebTemplate;
use axum::extract::{Path, State};
use axum::response::{IntoResponse, Response};
use mend_core::caution::Caution;
use mend_core::method::fit::Fit;
use mend_core::method::techniques::{Question, Techniques};
use mend_core::method::{MethodChoice, MethodFamily};
use mend_core::planning::plan_inputs::PlanInputs;
use mend_core::planning::search::SearchResult;
use mend_core::planning::search::request::Tried;
use mend_core::planning::search::score::ENOUGH_K;
use mend_core::shop::Stop;

use super::super::recipe_lines::recipe_lines;
use super::reasons;
use crate::App;
use crate::computing::Progress;
use crate::job::Job;
use crate::methods::{MethodInputs, comparing, searching};
use crate::pages::{Frame, JobHead};
use crate::refusal::Refusal;
use crate::visitor::Visitor;
use crate::words::{MethodText, Words, damaged};

/// A question with the technique that is followed.
struct FamilyQuery {
    question: &'static Question,
    followed: &'static str,
}

/// What a search found, in words.
pub(crate) struct FoundView {
    open: bool,
    found: bool,
    margin: String,
    tightest: String,
    release: String,
    lines: Vec<String>,
    candidates: usize,
    turned_down: usize,
    /// Margins beyond this are worth nothing.
    enough: String,
    limited_by: String,
    /// What one thing more would be, and what it would bring.
    buys: Vec<(String, String)>,
}

#[derive(Template, WebTemplate)]
#[template(path = "jobs/method/search.html")]
pub(crate) struct SearchPart {
    part: Progress<Box<FoundView>>,
    job: i64,
    key: &'static str,
    fitting: bool,
}

#[derive(Template, WebTemplate)]
#[template(path = "jobs/method/family.html")]
struct FamilyPage {
    frame: Frame,
    head: JobHead,
    oob: bool,
    job: i64,
    key: &'static str,
    text: &'static MethodText,
    cautions: &'static [Caution],
    speaks_for: Vec<String>,
    against: Vec<String>,
    minds: Vec<String>,
    fitting: bool,
    chosen: bool,
    asked: Vec<FamilyQuery>,
    part: Progress<Box<FoundView>>,
}

pub(crate) type FamilyPath = Path<(String, String)>;

/// Job and family of an address.
async fn enter(app: &App, Path((id, key)): &FamilyPath) -> Result<(Job, MethodFamily), Refusal> {
    let id = id.parse().map_err(|_| Refusal::NotFound("job"))?;
    let family = MethodFamily::named(key).ok_or(Refusal::NotFound("family of methods"))?;
    Ok((Job::load(app, id).await?, family))
}

pub(crate) async fn show(State(app): State<App>, visitor: Visitor, path: FamilyPath) -> Result<Response, Refusal> {
    let (job, family) = enter(&app, &path).await?;
    let weighed = MethodInputs::load(&app, &job).await?;
    let fit = fit_of(&app, &job, &weighed, family).await;
    let chosen = weighed.inputs.method.clone().filter(|choice| choice.family == family);
    let techniques = chosen.as_ref().map_or_else(Techniques::default, |choice| choice.techniques.clone());
    let asked = family
        .method()
        .questions()
        .iter()
        .map(|q| FamilyQuery { question: q, followed: techniques.followed(q) })
        .collect();
    let part = SearchAsked { job: &job, weighed: &weighed, family, fitting: fit.applies() }.part(&app, visitor).await?;
    let (words, text) = (visitor.words(), visitor.words().method(family));
    let here = format!("/jobs/{}/method/{}", job.row.id, family.key());
    let page = FamilyPage {
        frame: Frame::new(text.name, visitor.scale, "bench", here),
        head: JobHead::from_job(&job, Some(Stop::Method), app.now().date()),
        oob: false,
        job: job.row.id,
        key: family.key(),
        text,
        cautions: family.method().cautions(),
        fitting: fit.applies(),
        speaks_for: fit.speaks_for.iter().map(|reason| words.advantage(reason)).collect(),
        against: fit.against.iter().map(|reason| words.obstacle(reason)).collect(),
        minds: fit.minds.iter().map(|reason| words.caveat(reason)).collect(),
        chosen: chosen.is_some(),
        asked,
        part,
    };
    Ok(page.into_response())
}

/// Its reasons, as the comparison has them where that is there already: it has looked for something to begin from.
async fn fit_of(app: &App, job: &Job, weighed: &MethodInputs, family: MethodFamily) -> Fit {
    let plain = || family.method().fit(&weighed.subject());
    match comparing(app, job, weighed).await.shown(|comparison| reasons(&comparison, family).cloned()) {
        Ok(Progress::Ready(Some(fit))) => fit,
        _ => plain(),
    }
}

/// The settings of a family that are sought for a job.
struct SearchAsked<'a> {
    job: &'a Job,
    weighed: &'a MethodInputs,
    family: MethodFamily,
    /// Does it apply at all?
    fitting: bool,
}

impl SearchAsked<'_> {
    async fn part(&self, app: &App, visitor: Visitor) -> Result<Progress<Box<FoundView>>, Refusal> {
        if !self.fitting {
            return Ok(Progress::Cancelled);
        }
        let stand = searching(app, self.job, self.weighed, self.family).await;
        stand.shown(|searched| Box::new(view(&searched, visitor.words())))
    }
}

fn view(searched: &SearchResult, words: Words) -> FoundView {
    let told = searched.told();
    let margin = |tried: &Tried| {
        if tried.tightest.is_some() { words.apart(tried.score.headroom_k) } else { "—".to_owned() }
    };
    FoundView {
        open: told.is_some_and(|tried| tried.score.is_open()),
        found: searched.best.is_some(),
        margin: told.map_or(String::new(), margin),
        tightest: told.and_then(|tried| tried.tightest.as_ref()).map_or(String::new(), damaged),
        release: told.and_then(|tried| tried.score.release_s).map_or("never".to_owned(), |t| format!("{t:.0} s")),
        lines: told.map_or(Vec::new(), |tried| recipe_lines(&tried.composition, &tried.recipe, words)),
        candidates: searched.candidates,
        turned_down: searched.turned_down,
        enough: words.apart(ENOUGH_K),
        limited_by: searched.limited_by().map_or(String::new(), |limit| words.search_limit(&limit)),
        buys: searched.buys.iter().map(|buy| (words.change(&buy.what), words.buy_effect(buy))).collect(),
    }
}

/// How far is the search?
pub(crate) async fn poll(State(app): State<App>, visitor: Visitor, path: FamilyPath) -> Result<SearchPart, Refusal> {
    let (job, family) = enter(&app, &path).await?;
    let weighed = MethodInputs::load(&app, &job).await?;
    let fitting = family.method().fit(&weighed.subject()).applies();
    let part = SearchAsked { job: &job, weighed: &weighed, family, fitting }.part(&app, visitor).await?;
    Ok(SearchPart { part, job: job.row.id, key: family.key(), fitting })
}

pub(crate) async fn cancel(State(app): State<App>, path: FamilyPath) -> Result<SearchPart, Refusal> {
    let (job, family) = enter(&app, &path).await?;
    app.computing.cancel(&MethodInputs::load(&app, &job).await?.search_key(family));
    Ok(SearchPart { part: Progress::Cancelled, job: job.row.id, key: family.key(), fitting: true })
}

pub(crate) async fn again(state: State<App>, visitor: Visitor, path: FamilyPath) -> Result<SearchPart, Refusal> {
    let (job, family) = enter(&state.0, &path).await?;
    state.0.computing.forget(&MethodInputs::load(&state.0, &job).await?.search_key(family));
    poll(state, visitor, path).await
}

/// The settings that the thorough search found.
pub(super) async fn found(
    app: &App,
    job: &Job,
    weighed: &MethodInputs,
    choice: &MethodChoice,
) -> Result<PlanInputs, Refusal> {
    let Progress::Ready(searched) = searching(app, job, weighed, choice.family).await.shown(|searched| searched)?
    else {
        return Err(Refusal::NotYet("The search is not done"));
    };
    let tried = searched.best.as_ref().ok_or(Refusal::NotYet("The search found no settings that hold"))?;
    Ok(weighed.inputs_of(choice, &tried.composition, &tried.recipe))
}
