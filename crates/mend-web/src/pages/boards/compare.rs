//! Two versions of a board on one map: what came, went, moved and changed.

use askama::Template;
use askama_web::WebTemplate;
use axum::extract::{Path, State};
use mend_core::board::compare::{Difference, DifferenceKind, differences};
use mend_core::board::{Board, Face, Rect};
use serde::Deserialize;

use crate::App;
use crate::draw::board_map::{BoardMap, Drawing, MapExtent};
use crate::draw::n;
use crate::extract::Query;
use crate::pages::Frame;
use crate::pictures::pictured;
use crate::refusal::Refusal;
use crate::visitor::Visitor;
use crate::words::Words;

/// Where a thing was, or is.
struct DifferenceMark {
    class: &'static str,
    number: Option<usize>,
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
    marks: Vec<DifferenceMark>,
}

/// A difference in words.
struct DifferenceLine {
    number: usize,
    word: &'static str,
    what: String,
    summary: String,
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
    lines: Vec<DifferenceLine>,
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
        row.map(|row| row.id).ok_or(Refusal::NotFound("revision of this board"))
    };
    let unread = Refusal::NotYet("One of these revisions can't be read");
    let two = (pictured(&app, find(from)?).await?, pictured(&app, find(to)?).await?);
    let (Some(older), Some(newer)) = two else { return Err(unread) };
    let found = differences(&older.board, &newer.board);
    let here = format!("/boards/{model}/compare?from={from}&to={to}");
    let faces = [Face::Top, Face::Bottom];
    Ok(ComparePage {
        frame: Frame::new(format!("{}: revision {from} and {to}", newest.name), visitor.scale, "boards", here),
        model,
        name: newest.name.clone(),
        from,
        to,
        versions: rows.iter().map(|row| row.version).collect(),
        sheets: faces.iter().map(|face| sheet(&newer.board, *face, visitor, &found)).collect(),
        lines: found.iter().enumerate().map(|(k, difference)| line(k, difference, visitor.words())).collect(),
    })
}

fn line(k: usize, difference: &Difference, words: Words) -> DifferenceLine {
    let (what, summary) = (words.difference_of(&difference.of), words.differing(difference));
    let word = match difference.kind {
        DifferenceKind::Came => "came",
        DifferenceKind::Went => "went",
        DifferenceKind::Moved => "moved",
        DifferenceKind::Changed => "changed",
    };
    DifferenceLine { number: k + 1, word, what, summary }
}

fn sheet(board: &Board, face: Face, visitor: Visitor, found: &[Difference]) -> Sheet {
    let (window, scale) = (MapExtent::Whole, visitor.scale);
    let map =
        Drawing { board, face, window, margins: &[], photos: &[], scale, lettering: 0.0, overlay: None }.draw(None);
    let marks = found.iter().enumerate().flat_map(|(k, d)| {
        let class = if d.kind == DifferenceKind::Came { "is came" } else { "is" };
        let is = d.is.filter(|(on, _)| *on == face).map(|(_, rect)| mark(class, &rect));
        let was = d.was.filter(|(on, _)| *on == face).map(|(_, rect)| mark("was", &rect));
        let mut both: Vec<DifferenceMark> = was.into_iter().chain(is).collect();
        // Where both are drawn, one number stands for the two.
        both.last_mut().into_iter().for_each(|mark| mark.number = Some(k + 1));
        both
    });
    Sheet { face: face.name(), view_box: map.view_box.clone(), marks: marks.collect(), map }
}

fn mark(class: &'static str, rect: &Rect) -> DifferenceMark {
    DifferenceMark {
        class,
        number: None,
        x: n(rect.left()),
        y: n(-rect.far()),
        width: n(rect.width),
        height: n(rect.depth),
    }
}
