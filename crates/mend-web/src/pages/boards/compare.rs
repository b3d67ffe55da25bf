//! Two versions of a board on one map: what came, went, moved and changed.

use askama::Template;
use askama_web::WebTemplate;
use axum::extract::{Path, State};
use mend_core::board::compare::{Change, Difference, differences};
use mend_core::board::{Board, Face, Rect};
use serde::Deserialize;

use crate::App;
use crate::draw::board_map::{BoardMap, Drawing, Window};
use crate::draw::n;
use crate::extract::Query;
use crate::pages::Frame;
use crate::pictures::pictured;
use crate::refusal::Refusal;
use crate::visitor::Visitor;

/// Where a thing was, or is.
struct Mark {
    class: &'static str,
    number: usize,
    x: String,
    y: String,
    width: String,
    height: String,
}

/// One face with its marks.
struct Sheet {
    face: &'static str,
    map: BoardMap,
    view_box: String,
    marks: Vec<Mark>,
}

/// A difference in words.
struct Line {
    number: usize,
    word: &'static str,
    what: String,
    said: String,
}

#[derive(Template, WebTemplate)]
#[template(path = "boards/compare.html")]
pub(super) struct ComparePage {
    frame: Frame,
    model: i64,
    name: String,
    from: i64,
    to: i64,
    versions: Vec<i64>,
    sheets: Vec<Sheet>,
    lines: Vec<Line>,
}

/// Which two.
#[derive(Deserialize)]
pub(super) struct Two {
    #[serde(default)]
    from: String,
    #[serde(default)]
    to: String,
}

pub(super) async fn show(
    State(app): State<App>,
    visitor: Visitor,
    Path(model): Path<String>,
    Query(two): Query<Two>,
) -> Result<ComparePage, Refusal> {
    let model: i64 = model.parse().map_err(|_| Refusal::NotFound("board"))?;
    let rows = app.reading(move |read| read.versions(model)).await?;
    let newest = rows.first().ok_or(Refusal::NotFound("board"))?;
    let number = |typed: &str, usual: i64| typed.parse().unwrap_or(usual);
    let (to, from) = (number(&two.to, newest.version), number(&two.from, (newest.version - 1).max(1)));
    let find = |version: i64| {
        let row = rows.iter().find(|row| row.version == version);
        row.map(|row| row.id).ok_or(Refusal::NotFound("version of this board"))
    };
    let unread = Refusal::NotYet("One of these versions can't be read");
    let two = (pictured(&app, find(from)?).await?, pictured(&app, find(to)?).await?);
    let (Some(older), Some(newer)) = two else { return Err(unread) };
    let found = differences(&older.board, &newer.board);
    let here = format!("/boards/{model}/compare?from={from}&to={to}");
    let faces = [Face::Top, Face::Bottom];
    Ok(ComparePage {
        frame: Frame::new(format!("{}: version {from} and {to}", newest.name), visitor.scale, "boards", here),
        model,
        name: newest.name.clone(),
        from,
        to,
        versions: rows.iter().map(|row| row.version).collect(),
        sheets: faces.iter().map(|face| sheet(&newer.board, (*face, visitor), &found)).collect(),
        lines: found.iter().enumerate().map(line).collect(),
    })
}

fn line((k, difference): (usize, &Difference)) -> Line {
    let word = match difference.kind {
        Change::Came => "came",
        Change::Went => "went",
        Change::Moved => "moved",
        Change::Changed => "changed",
    };
    Line { number: k + 1, word, what: difference.what.clone(), said: difference.said.clone() }
}

fn sheet(board: &Board, (face, visitor): (Face, Visitor), found: &[Difference]) -> Sheet {
    let (window, scale) = (Window::Whole, visitor.scale);
    let map =
        Drawing { board, face, window, margins: &[], photos: &[], scale, lettering: 0.0, overlay: None }.draw(None);
    let marks = found.iter().enumerate().flat_map(|(k, d)| {
        let was = d.was.filter(|(on, _)| *on == face).map(|(_, rect)| mark("was", k, &rect));
        let is =
            d.is.filter(|(on, _)| *on == face)
                .map(|(_, rect)| mark(if d.kind == Change::Came { "is came" } else { "is" }, k, &rect));
        [was, is].into_iter().flatten().collect::<Vec<_>>()
    });
    Sheet { face: face.name(), view_box: map.view_box.clone(), marks: marks.collect(), map }
}

fn mark(class: &'static str, k: usize, rect: &Rect) -> Mark {
    Mark { class, number: k + 1, x: n(rect.left()), y: n(-rect.far()), width: n(rect.width), height: n(rect.depth) }
}
