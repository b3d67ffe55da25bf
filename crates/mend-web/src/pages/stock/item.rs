//! One item: what there is of it, its ledger, and what it is taken for.

use askama::Template;
use askama_web::WebTemplate;
use axum::extract::{Path, State};
use axum::response::Redirect;
use jiff::civil::Date;
use mend_core::shop::stock::MoveKind;
use mend_formats::item;
use mend_formats::item::used_as::UsedAs;
use mend_store::{ItemRow, LookAlikeRow, MoveRow, NeedRow, NewMove};
use serde::Deserialize;

use super::list::{self, ItemView, is_consumable, taken};
use super::{form, serve_waiting};
use crate::App;
use crate::extract::Form;
use crate::job::day_in_words;
use crate::pages::Frame;
use crate::pages::number::number;
use crate::refusal::Refusal;
use crate::visitor::Visitor;

/// So many moves are shown.
const SHOWN: u32 = 100;
/// Longest note, characters; largest quantity.
const LONGEST_NOTE: usize = 200;
const LARGEST: f64 = 100_000.0;

/// Moves that a person enters, with what the button says.
const ENTERED: [(MoveKind, &str); 7] = [
    (MoveKind::Received, "received"),
    (MoveKind::Ordered, "ordered"),
    (MoveKind::OffOrder, "order cancelled"),
    (MoveKind::Used, "used"),
    (MoveKind::Returned, "returned to the supplier"),
    (MoveKind::Scrapped, "scrapped"),
    (MoveKind::Counted, "counted: this is on the shelf"),
];

/// So much of something: whole pieces without a fraction, and of little two figures, as of a nozzle's hours.
pub(crate) fn quantity(value: f64, unit: &str) -> String {
    let decimals = match value.abs() {
        size if (size - size.round()).abs() < 1e-6 => 0,
        size if size < 0.01 => 4,
        size if size < 0.1 => 3,
        _ => 2,
    };
    format!("{value:.decimals$} {unit}")
}

/// A move, in words.
struct MoveView {
    row: MoveRow,
    at: String,
    what: String,
    quantity: String,
    day: String,
}

#[derive(Template, WebTemplate)]
#[template(path = "stock/item.html")]
pub(crate) struct ItemPage {
    frame: Frame,
    view: ItemView,
    attributes: String,
    /// What a consumable is used up as, and of which alloy or width.
    used_as: (&'static str, String),
    moves: Vec<MoveView>,
    look_alikes: Vec<LookAlikeRow>,
    /// Others that it may be taken for.
    others: Vec<(i64, String)>,
    kinds: [(MoveKind, &'static str); 7],
    consumable: bool,
    uses: [UsedAs; 8],
}

fn id_of(Path(id): &Path<String>) -> Result<i64, Refusal> {
    id.parse().map_err(|_| Refusal::NotFound("item"))
}

async fn row(app: &App, id: i64) -> Result<ItemRow, Refusal> {
    app.reading(move |read| read.item(id)).await?.ok_or(Refusal::NotFound("item"))
}

pub(crate) async fn show(State(app): State<App>, visitor: Visitor, path: Path<String>) -> Result<ItemPage, Refusal> {
    let id = id_of(&path)?;
    row(&app, id).await?;
    let mut all = list::load(&app).await?;
    let at = all.iter().position(|view| view.row.id == id).ok_or(Refusal::NotFound("item in use: it was retired"))?;
    let view = all.swap_remove(at);
    let others = all.into_iter().map(|other| (other.row.id, other.row.name)).collect();
    let (moves, look_alikes) = app.reading(move |read| Ok((read.moves(id, SHOWN)?, read.look_alikes(id)?))).await?;
    let in_words = |row: MoveRow| MoveView {
        at: app.moment_of(row.at_ms).strftime("%-d %b %Y, %H:%M").to_string(),
        what: if row.kind == MoveKind::OffOrder.key() { "off the order".to_owned() } else { row.kind.clone() },
        quantity: quantity(row.quantity, &view.item.unit),
        day: day_in_words(&row.day).map(|day| format!("comes {day}")).unwrap_or_default(),
        row,
    };
    let moves = moves.into_iter().map(in_words).collect();
    Ok(ItemPage {
        frame: Frame::new(view.row.name.clone(), visitor.scale, "stock", format!("/stock/{id}")),
        attributes: form::attribute_lines(&view.item),
        used_as: form::used_as(&view.item),
        consumable: is_consumable(&view.item),
        moves,
        look_alikes,
        others,
        kinds: ENTERED,
        uses: UsedAs::ALL,
        view,
    })
}

pub(crate) async fn change(
    State(app): State<App>,
    path: Path<String>,
    Form(sent): Form<Vec<(String, String)>>,
) -> Result<Redirect, Refusal> {
    let id = row(&app, id_of(&path)?).await?.id;
    let item = form::read(&sent)?;
    let (name, file) = (item.name.clone(), item::write(&item)?);
    if !app.writing(move |write| write.change_item(id, &name, &file)).await? {
        return Err(taken(&item.name));
    }
    Ok(Redirect::to(&format!("/stock/{id}")))
}

#[derive(Deserialize)]
pub(crate) struct MoveForm {
    kind: String,
    quantity: String,
    #[serde(default)]
    day: String,
    #[serde(default)]
    note: String,
}

impl MoveForm {
    /// The move, where the shelf allows it.
    fn checked(&self, row: &ItemRow, now_ms: i64) -> Result<NewMove, Refusal> {
        let kind = MoveKind::from_key(&self.kind).filter(|kind| ENTERED.iter().any(|(entered, _)| entered == kind));
        let kind = kind.ok_or_else(|| Refusal::field("kind", format!("“{}” is no move", self.kind), "choose one"))?;
        let mut bad = Vec::new();
        let typed = number("stock", "quantity", &self.quantity, &mut bad);
        if !bad.is_empty() {
            return Err(bad.into());
        }
        let least = if kind == MoveKind::Counted { 0.0 } else { f64::MIN_POSITIVE };
        if !(least..=LARGEST).contains(&typed) {
            return Err(Refusal::field("quantity", format!("{typed} can't be"), "more than 0, up to 100 000"));
        }
        // Who counts says what is there; the move is what the ledger was off by.
        let quantity = if kind == MoveKind::Counted { typed - row.level.on_hand } else { typed };
        let leaves = matches!(kind, MoveKind::Used | MoveKind::Returned | MoveKind::Scrapped);
        if leaves && !row.level.spares(quantity) {
            let free = self::quantity(row.level.free(), "");
            let hint = "count the shelf, or release what jobs were promised";
            return Err(Refusal::field("quantity", format!("only {free}is free"), hint));
        }
        if kind == MoveKind::OffOrder && quantity > row.level.on_order + 1e-3 {
            let hint = "no more than that can be cancelled";
            return Err(Refusal::field("quantity", format!("{} is on order", row.level.on_order), hint));
        }
        let day = if kind == MoveKind::Ordered { self.day.trim() } else { "" };
        if !day.is_empty() && day.parse::<Date>().is_err() {
            return Err(Refusal::field("day", format!("“{day}” is no day"), "like 2026-12-04"));
        }
        if self.note.chars().count() > LONGEST_NOTE {
            return Err(Refusal::field("note", "is too long", "up to 200 characters"));
        }
        let (day, note) = (day.to_owned(), self.note.trim().to_owned());
        Ok(NewMove { item: row.id, job: None, kind, quantity, day, note, at_ms: now_ms })
    }
}

pub(crate) async fn enter(
    State(app): State<App>,
    path: Path<String>,
    Form(sent): Form<MoveForm>,
) -> Result<Redirect, Refusal> {
    let (id, now_ms) = (id_of(&path)?, app.now_ms());
    let entered = app.writing(move |write| {
        // Looked at where it is written: two who take the last one see each other.
        let Some(row) = write.read().item(id)? else { return Ok(Err(Refusal::NotFound("item"))) };
        match sent.checked(&row, now_ms) {
            Ok(new) => write.add_move(&new).map(Ok),
            Err(refusal) => Ok(Err(refusal)),
        }
    });
    entered.await??;
    serve_waiting(&app, id).await?;
    Ok(Redirect::to(&format!("/stock/{id}")))
}

#[derive(Deserialize)]
pub(crate) struct LookAlikeForm {
    other: i64,
    #[serde(default)]
    difference: String,
}

pub(crate) async fn look_alike(
    State(app): State<App>,
    path: Path<String>,
    Form(sent): Form<LookAlikeForm>,
) -> Result<Redirect, Refusal> {
    let (id, difference) = (row(&app, id_of(&path)?).await?.id, sent.difference.trim().to_owned());
    row(&app, sent.other).await?;
    if sent.other == id || difference.chars().count() > LONGEST_NOTE {
        let hint = "another item, and up to 200 characters of what tells them apart";
        return Err(Refusal::field("look-alike", "can't be", hint));
    }
    app.writing(move |write| write.set_look_alike(id, sent.other, &difference)).await?;
    Ok(Redirect::to(&format!("/stock/{id}")))
}

pub(crate) async fn retire(State(app): State<App>, path: Path<String>) -> Result<Redirect, Refusal> {
    let (row, now_ms) = (row(&app, id_of(&path)?).await?, app.now_ms());
    let id = row.id;
    // A job that waits for it would wait for ever: nothing of it is ordered any more.
    let waiting = app.writing(move |write| {
        let waiting = write.read().open_needs(Some(id))?.into_iter().find(NeedRow::waits);
        if waiting.is_none() {
            write.retire_item(id, now_ms)?;
        }
        Ok(waiting)
    });
    match waiting.await? {
        None => Ok(Redirect::to("/stock")),
        Some(need) => {
            let what = format!("job {} waits for {}", need.job, need.name);
            Err(Refusal::field("retire", what, "take it off that job's parts first"))
        }
    }
}
