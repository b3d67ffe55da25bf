//! What a job needs from the shelf: promised to it, waited for, told from what it is taken for. Of a harvest: what comes off.

use askama::Template;
use askama_web::WebTemplate;
use axum::extract::{Path, Request, State};
use axum::response::Redirect;
use mend_core::inspection::functional_test::{TestVerdict, judged};
use mend_core::method::JobKind;
use mend_core::planning::used_up::Use;
use mend_core::planning::used_up::at_bench::BenchUse;
use mend_core::shop::Stop;
use mend_core::shop::stock::{MoveKind, PartState};
use mend_formats::item::{self, StockItem};
use mend_store::{CheckRow, ItemRow, JobPhotoRow, LookAlikeRow, NewCheck, NewMove, ReserveOutcome};
use serde::Deserialize;

use super::{JobPath, number, photos};
use crate::App;
use crate::extract::Form;
use crate::job::{BenchRunView, Job, LOOK_ALIKE, NeededPart, day_in_words};
use crate::pages::number::number as typed_number;
use crate::pages::stock::{quantity, serve_waiting};
use crate::pages::{Frame, JobHead};
use crate::people::new_token;
use crate::photograph;
use crate::refusal::Refusal;
use crate::upload;
use crate::visitor::Visitor;

/// More than this of one part in one job is a slip.
const MOST: f64 = 1000.0;

/// A look-alike, and how the part was told from it.
struct LookAlikeView {
    row: LookAlikeRow,
    /// Empty: it was not.
    told: String,
}

/// A part with where it stands.
struct PartView {
    part: NeededPart,
    quantity: String,
    /// `ready`, `used` or `waits`.
    state: &'static str,
    says: String,
    look_alikes: Vec<LookAlikeView>,
}

/// Something of the stock that could be meant.
struct OfferView {
    id: i64,
    name: String,
    free: String,
}

#[derive(Template, WebTemplate)]
#[template(path = "jobs/parts.html")]
pub(crate) struct JobPartsPage {
    frame: Frame,
    head: JobHead,
    oob: bool,
    job: i64,
    parts: Vec<PartView>,
    /// Those that fit its board first.
    fitting: Vec<OfferView>,
    others: Vec<OfferView>,
    harvest: bool,
    closed: bool,
}

pub(crate) async fn show(State(app): State<App>, visitor: Visitor, path: JobPath) -> Result<JobPartsPage, Refusal> {
    let job = Job::load(&app, number(&path)?).await?;
    let items = app.reading(|read| read.items()).await?;
    let view = |part: &NeededPart| part_view(&job, part, &items);
    let parts: Vec<PartView> = job.parts.iter().map(view).collect();
    let wanted = |row: &ItemRow| job.parts.iter().any(|part| part.need.item == row.id);
    let free: Vec<&ItemRow> = items.iter().filter(|row| !wanted(row)).collect();
    let (fitting, others): (Vec<&ItemRow>, Vec<&ItemRow>) = free.into_iter().partition(|row| fits(&job, row));
    let id = job.row.id;
    Ok(JobPartsPage {
        frame: Frame::new(job.device(), visitor.scale, "bench", format!("/jobs/{id}/parts")),
        head: JobHead::from_job(&job, None, app.now().date()),
        oob: false,
        job: id,
        parts,
        fitting: fitting.into_iter().map(offer).collect(),
        others: others.into_iter().map(offer).collect(),
        harvest: job.kind() == JobKind::Harvest,
        closed: job.is_closed(),
    })
}

fn offer(row: &ItemRow) -> OfferView {
    let unit = item::parse(row.file.as_bytes()).map(|item| item.unit).unwrap_or_default();
    OfferView { id: row.id, name: row.name.clone(), free: quantity(row.level.free(), &unit) }
}

/// Does it say that it fits this job's board, or is it this board's connector?
fn fits(job: &Job, row: &ItemRow) -> bool {
    let (Some((_, board)), Ok(item)) = (&job.board, item::parse(row.file.as_bytes())) else { return false };
    let is_kind = !item.connector.is_empty() && item.connector == board.connector.name;
    is_kind || item.fits.contains(&board.name)
}

fn part_view(job: &Job, part: &NeededPart, items: &[ItemRow]) -> PartView {
    let file = items.iter().find(|row| row.id == part.need.item).map(|row| row.file.clone()).unwrap_or_default();
    let unit = item::parse(file.as_bytes()).map(|item| item.unit).unwrap_or_else(|_| "pc".to_owned());
    let harvest = job.kind() == JobKind::Harvest;
    let (state, says) = match part.state() {
        PartState::Used => ("used", "used".to_owned()),
        PartState::Ready => ("ready", "lies ready for this job".to_owned()),
        PartState::Waits if harvest && job.is_closed() => ("ready", "went onto the shelf".to_owned()),
        PartState::Waits if harvest => ("ready", "goes onto the shelf when this job is closed".to_owned()),
        PartState::Waits => match day_in_words(&part.need.day) {
            Some(day) => ("waits", format!("on its way, expected {day}")),
            None => ("waits", "not there: it is on the order list".to_owned()),
        },
    };
    let told = |row: &LookAlikeRow| job.check(LOOK_ALIKE, &part.check_name(row.other)).unwrap_or_default().to_owned();
    let look_alikes = part.look_alikes.iter().map(|row| LookAlikeView { told: told(row), row: row.clone() }).collect();
    PartView { quantity: quantity(part.need.wanted, &unit), state, says, look_alikes, part: part.clone() }
}

#[derive(Deserialize)]
pub(crate) struct NeedForm {
    item: i64,
    quantity: String,
}

pub(crate) async fn add(
    State(app): State<App>,
    path: JobPath,
    Form(sent): Form<NeedForm>,
) -> Result<Redirect, Refusal> {
    let (id, now_ms) = (number(&path)?, app.now_ms());
    let job = Job::load(&app, id).await?;
    let mut bad = Vec::new();
    let wanted = typed_number("parts", "quantity", &sent.quantity, &mut bad);
    if !bad.is_empty() {
        return Err(bad.into());
    }
    if !(wanted > 0.0 && wanted <= MOST) {
        return Err(Refusal::field("quantity", format!("{wanted} can't be"), "more than 0, up to 1000"));
    }
    let kept = app.reading(|read| read.items()).await?.into_iter().any(|row| row.id == sent.item);
    if !kept {
        return Err(Refusal::NotFound("item in use"));
    }
    let harvest = job.kind() == JobKind::Harvest;
    app.changing(id, move |write| {
        write.need_item(id, sent.item, wanted)?;
        let needs = write.read().needs(id)?;
        match needs.iter().find(|need| need.item == sent.item).filter(|_| !harvest) {
            Some(need) => write.reserve(need, now_ms),
            None => Ok(ReserveOutcome::Ready),
        }
    })
    .await?;
    Ok(Redirect::to(&format!("/jobs/{id}/parts")))
}

pub(crate) async fn remove(
    State(app): State<App>,
    Path((job, item)): Path<(String, i64)>,
) -> Result<Redirect, Refusal> {
    let (id, now_ms) = (number(&Path(job))?, app.now_ms());
    if Job::load(&app, id).await?.is_closed() {
        return Err(Refusal::Closed);
    }
    app.changing(id, move |write| write.drop_need(id, item, now_ms)).await?;
    serve_waiting(&app, item).await?;
    Ok(Redirect::to(&format!("/jobs/{id}/parts")))
}

/// The longest of what is measured, characters.
const LONGEST: usize = 60;

/// The part was told from what it is taken for: by what was measured, or by a photograph of what tells them apart.
pub(crate) async fn tell(
    State(app): State<App>,
    Path((job, item, other)): Path<(String, i64, i64)>,
    request: Request,
) -> Result<Redirect, Refusal> {
    let id = number(&Path(job))?;
    let mut sent = upload::read(request, &photograph::FILE).await??;
    let job = Job::load(&app, id).await?;
    let of_part = job.parts.iter().filter(|part| part.need.item == item).flat_map(|part| &part.look_alikes);
    let row = of_part.clone().find(|row| row.other == other).ok_or(Refusal::NotFound("look-alike"))?;
    let (measured, bytes, now_ms) = (sent.text("measured").trim().to_owned(), sent.bytes("photo"), app.now_ms());
    let words = format!("told from {}: {}", row.name, row.difference);
    if measured.is_empty() && bytes.is_empty() {
        let either = "enter what was measured, or choose a photograph of what tells them apart";
        return Err(Refusal::field("measured", "is empty", either));
    }
    if measured.chars().count() > LONGEST {
        return Err(Refusal::field("measured", "is too long", &format!("up to {LONGEST} characters")));
    }
    let photo = match bytes.is_empty() {
        true => None,
        false => {
            photos::expect_room(&app, id).await?;
            Some(photograph::decode(bytes).await??)
        }
    };
    let ways = [
        Some(format!("measured {measured}")).filter(|_| !measured.is_empty()),
        photo.as_ref().map(|_| "photographed".to_owned()),
    ];
    let told = ways.into_iter().flatten().collect::<Vec<_>>().join(", ");
    let (list, name) = (LOOK_ALIKE.to_owned(), format!("{item}-{other}"));
    let check = NewCheck { row: CheckRow { list, name, value: told, entered_ms: now_ms }, token: new_token()? };
    app.changing(id, move |write| {
        if let Some(photo) = photo {
            let (photo_id, stop) = (write.add_photo(&photo, now_ms)?, Stop::Look.path().to_owned());
            let row = JobPhotoRow { id: 0, photo_id, stop, words, on_sheet: false, added_ms: now_ms };
            write.add_job_photo(id, &row)?;
        }
        write.enter_check(id, &check)
    })
    .await?;
    Ok(Redirect::to(&format!("/jobs/{id}/parts")))
}

/// The shelf, and how much of which item a job has taken off it before.
pub(super) struct ShelfBefore<'a> {
    pub(super) items: &'a [ItemRow],
    pub(super) taken: &'a [(i64, f64)],
}

/// What a job that is closed has used up in its runs at the bench, where the stock knows such. What it has taken off the shelf
/// before, and was opened again since, is not taken twice.
pub(super) fn consumed(job: &Job, runs: &[BenchRunView], shelf: ShelfBefore<'_>, at_ms: i64) -> Vec<NewMove> {
    let ShelfBefore { items, taken } = shelf;
    let Some((_, board)) = &job.board else { return Vec::new() };
    let of_run = |bench: &BenchRunView| {
        let (composition, recipe) = (&bench.composition, &bench.planned.plan.recipe);
        let (steps, run, ledger) = (&bench.steps, &bench.state, &bench.ledger);
        BenchUse { board, composition, recipe, steps, run, ledger }.uses()
    };
    let uses: Vec<Use> = runs.iter().flat_map(of_run).collect();
    let took = |item: i64, quantity: f64| NewMove {
        item,
        job: Some(job.row.id),
        kind: MoveKind::Used,
        quantity,
        day: String::new(),
        note: "by the bench run".to_owned(),
        at_ms,
    };
    let before = |item: i64| taken.iter().find(|(other, _)| *other == item).map_or(0.0, |(_, quantity)| *quantity);
    let all = from_the_shelf(&uses, items);
    let rest = all.into_iter().map(|(item, quantity)| (item, quantity - before(item)));
    rest.filter(|(_, quantity)| *quantity > 1e-6).map(|(item, quantity)| took(item, quantity)).collect()
}

/// How much of which item a job's uses take, an item once.
pub(in crate::pages::jobs) fn from_the_shelf(uses: &[Use], items: &[ItemRow]) -> Vec<(i64, f64)> {
    let known: Vec<(i64, StockItem)> =
        items.iter().filter_map(|row| Some((row.id, item::parse(row.file.as_bytes()).ok()?))).collect();
    let mut all: Vec<(i64, f64)> = Vec::new();
    for used in uses {
        let Some((id, quantity)) = known.iter().find_map(|(id, item)| Some((*id, item.takes(used)?))) else { continue };
        match all.iter_mut().find(|(other, _)| *other == id) {
            Some((_, sum)) => *sum += quantity,
            None => all.push((id, quantity)),
        }
    }
    all
}

/// What a harvest that is closed brings onto the shelf, with what its test said; what it has brought before it does not bring again.
pub(super) fn harvested(job: &Job, taken_off: &[(i64, f64)], at_ms: i64) -> Vec<NewMove> {
    if job.kind() != JobKind::Harvest {
        return Vec::new();
    }
    let tests = job.tests();
    let note = match judged(&tests) {
        _ if tests.iter().all(|test| test.open.is_none()) => "not tested",
        TestVerdict::Passed | TestVerdict::TryClosed { .. } => "tested: works",
        TestVerdict::GoBack { .. } => "tested: fails",
        TestVerdict::TryOpen { .. } => "tested in part",
    };
    let came = |part: &NeededPart| NewMove {
        item: part.need.item,
        job: Some(job.row.id),
        kind: MoveKind::Harvested,
        quantity: part.need.wanted,
        day: String::new(),
        note: note.to_owned(),
        at_ms,
    };
    let is_new = |part: &&NeededPart| taken_off.iter().all(|(item, _)| *item != part.need.item);
    job.parts.iter().filter(is_new).map(came).collect()
}
