//! What is changed on a map while a device is opened: a thing more, less or earlier, a page more, a photograph behind it.

use axum::extract::{Request, State};
use axum::response::Redirect;
use mend_core::finding::Finding;
use mend_core::opening::item::{Hazard, ItemKind, Latch, ScrewHead};
use mend_core::opening::map::{MapEdit, MapPage, NoEdit, OpeningMap};
use mend_core::shop::Stop;
use mend_formats::opening::{self, OpeningFile, kind_findings};
use mend_store::{CheckRow, NewCheck, OpeningRow, StoreError, Write};
use serde::Deserialize;

use super::super::{JobPath, number};
use super::{OpeningPart, opening as opening_of, part};
use crate::App;
use crate::extract::Form;
use crate::job::{Job, MAP};
use crate::pages::number::number as read_number;
use crate::photograph;
use crate::refusal::Refusal;
use crate::upload;
use crate::visitor::Visitor;

const RULE: &str = "opening";
/// Longest note and longest name of a page, characters.
const LONGEST: [usize; 2] = [200, 80];

/// A change as it is sent.
#[derive(Deserialize, Default)]
#[serde(default)]
pub(crate) struct EditForm {
    act: String,
    token: String,
    /// Of an item: its number; before which other.
    item: String,
    before: String,
    /// Where, on which page, and what.
    page: String,
    x: String,
    y: String,
    kind: String,
    head: String,
    length: String,
    thread: String,
    colour: String,
    latch: String,
    of_cell: String,
    warm: String,
    seconds: String,
    count: String,
    thickness: String,
    hazard: String,
    note: String,
    name: String,
}

/// One of some by its key.
fn keyed<T: Copy>(all: &[T], key: fn(T) -> &'static str, field: &'static str, sent: &str) -> Result<T, Refusal> {
    let names = || all.iter().map(|one| key(*one)).collect::<Vec<_>>().join(", ");
    let found = all.iter().copied().find(|one| key(*one) == sent);
    found.ok_or_else(|| Refusal::field(field, format!("“{sent}” is none of the choices"), &names()))
}

impl EditForm {
    /// What is added.
    fn what(&self, visitor: Visitor) -> Result<ItemKind, Refusal> {
        let mut bad: Vec<Finding> = Vec::new();
        let mut figure = |place: &'static str, typed: &str| read_number(RULE, place, typed, &mut bad);
        let what = match self.kind.as_str() {
            "screw" => ItemKind::Screw {
                head: keyed(&ScrewHead::ALL, ScrewHead::key, "head", &self.head)?,
                length_mm: figure("length", &self.length),
                thread_mm: figure("thread", &self.thread),
                colour: self.colour.trim().to_owned(),
            },
            "cable" => ItemKind::Cable {
                latch: keyed(&Latch::ALL, Latch::key, "latch", &self.latch)?,
                of_cell: !self.of_cell.is_empty(),
            },
            "clip" => ItemKind::Clip,
            "adhesive" => ItemKind::Adhesive {
                warm_c: visitor.scale.read(figure("warm", &self.warm)).in_celsius(),
                for_s: figure("seconds", &self.seconds),
            },
            "thermal-pad" => ItemKind::ThermalPad {
                count: figure("count", &self.count).round().clamp(0.0, 1e6) as u32,
                thickness_mm: figure("thickness", &self.thickness),
            },
            "paste" => ItemKind::Paste,
            "liquid-metal" => ItemKind::LiquidMetal,
            "own" => ItemKind::Own,
            "hazard" => ItemKind::Hazard { of: keyed(&Hazard::ALL, Hazard::key, "hazard", &self.hazard)? },
            other => {
                return Err(Refusal::field(
                    "kind",
                    format!("“{other}” is nothing that a device is opened by"),
                    "choose one",
                ));
            }
        };
        if bad.is_empty() {
            bad = kind_findings(&what);
        }
        if bad.is_empty() { Ok(what) } else { Err(bad.into()) }
    }

    fn item(&self) -> u32 {
        self.item.parse().unwrap_or(0)
    }

    fn edit(&self, visitor: Visitor) -> Result<MapEdit, Refusal> {
        let long = |text: &str, most: usize| text.chars().count() > most;
        if long(&self.note, LONGEST[0]) || long(&self.name, LONGEST[1]) {
            return Err(Refusal::field("note", "is too long", "up to 200 characters; a page's name up to 80"));
        }
        Ok(match self.act.as_str() {
            "add" => {
                let share = |typed: &str| typed.parse::<f64>().unwrap_or(f64::NAN);
                let (page, at) = (self.page.parse().unwrap_or(usize::MAX), [share(&self.x), share(&self.y)]);
                MapEdit::Add { page, at, what: self.what(visitor)?, note: self.note.trim().to_owned() }
            }
            "remove" => MapEdit::Remove(self.item()),
            "move" => MapEdit::Move { id: self.item(), before: self.before.parse().ok() },
            "page" if self.name.trim().is_empty() => {
                return Err(Refusal::field("name", "a page needs a name", "like “under the plate”"));
            }
            "page" => MapEdit::AddPage(MapPage { name: self.name.trim().to_owned(), photo: None }),
            other => return Err(Refusal::field("act", format!("“{other}” is no change"), "reload the page")),
        })
    }
}

fn refused(why: NoEdit) -> Refusal {
    let (what, hint) = match why {
        NoEdit::Full => ("the map is full", "up to 12 pages and 400 things"),
        NoEdit::NotThere => ("there is no such page or thing", "reload the page"),
        NoEdit::Outside => ("that place lies outside the page", "tap on the picture"),
    };
    Refusal::field("map", what, hint)
}

/// Changes the map as it is by then, in one transaction: what another tab has added meanwhile stays. The same change sent again is none.
async fn keep(
    app: &App,
    job: &Job,
    token: &str,
    changed: impl Fn(&OpeningMap) -> Result<OpeningMap, NoEdit> + Send + 'static,
) -> Result<(), Refusal> {
    if !(1..=64).contains(&token.len()) {
        return Err(Refusal::field("token", "must have 1 to 64 characters", "reload the page"));
    }
    opening_of(job)?;
    let (id, now) = (job.row.id, app.now_ms());
    let entry = CheckRow { list: MAP.to_owned(), name: token.to_owned(), value: "changed".to_owned(), entered_ms: now };
    let entry = NewCheck { row: entry, token: token.to_owned() };
    let kept = move |w: &Write<'_>| {
        let Some(row) = w.read().opening_of(id)? else { return Ok(Err(NoEdit::NotThere)) };
        if w.read().has_check(id, &entry.token)? {
            return Ok(Ok(()));
        }
        let map = opening::parse(row.map.as_bytes()).map(OpeningFile::into_map);
        let Some(map) = map.ok().map(|map| changed(&map)) else { return Ok(Err(NoEdit::NotThere)) };
        let map = match map {
            Ok(map) => map,
            Err(why) => return Ok(Err(why)),
        };
        let text = opening::write(&OpeningFile::new(&row.name, map));
        let text = text.map_err(|error| StoreError::Connection(error.to_string()))?;
        w.enter_check(id, &entry)?;
        w.change_opening(id, &OpeningRow { map: text, ..row }, now).map(Ok)
    };
    app.changing(id, kept).await?.map_err(refused)
}

pub(crate) async fn change(
    State(app): State<App>,
    visitor: Visitor,
    path: JobPath,
    Form(sent): Form<EditForm>,
) -> Result<OpeningPart, Refusal> {
    let job = Job::load(&app, number(&path)?).await?;
    let edit = sent.edit(visitor)?;
    keep(&app, &job, &sent.token, move |map| map.edited(&edit)).await?;
    part(&app, job.row.id, visitor, Stop::Opening).await
}

/// A photograph behind a page.
pub(crate) async fn photograph(State(app): State<App>, path: JobPath, request: Request) -> Result<Redirect, Refusal> {
    let job = Job::load(&app, number(&path)?).await?;
    let pages = opening_of(&job)?.map.pages.len();
    let mut sent = upload::read(request, &photograph::FILE).await??;
    let page = sent.text("page").parse::<usize>().ok().filter(|page| *page < pages);
    let page = page.ok_or_else(|| refused(NoEdit::NotThere))?;
    let photo = photograph::decode(sent.bytes("photo")).await??;
    let now = app.now_ms();
    let number = app.writing(move |write| write.add_photo(&photo, now)).await?;
    let behind = move |map: &OpeningMap| {
        let mut map = map.clone();
        map.pages.get_mut(page).ok_or(NoEdit::NotThere)?.photo = Some(number);
        Ok(map)
    };
    keep(&app, &job, &format!("photo-{number}"), behind).await?;
    Ok(Redirect::to(&format!("/jobs/{}/opening", job.row.id)))
}
