//! Boards as they are read and drawn, kept for whoever looks again. A version of a board never changes, so a picture of it
//! never grows old; the least used go when they take too many bytes.

use std::sync::Arc;

use askama::Template;
use mend_core::board::draft::Photo;
use mend_core::board::{Board, Face, rules};
use mend_core::finding::Finding;
use mend_formats::{board, draft};
use mend_store::BoardRow;
use moka::sync::Cache;

use crate::App;
use crate::draw::board_map::{Drawing, MapExtent};
use crate::pages::boards::BoardFigures;
use crate::refusal::Refusal;
use crate::visitor::Visitor;

/// Bytes that pictures may take, and boards with them.
const KEPT_BYTES: u64 = 24 * 1024 * 1024;

/// A version of a board as the library shows it.
pub(crate) struct Pictured {
    pub(crate) board: Board,
    pub(crate) photos: Vec<Photo>,
    pub(crate) figures: BoardFigures,
    pub(crate) findings: Vec<Finding>,
    bytes: usize,
}

impl Pictured {
    /// The board of a row, with the photographs that it was traced over.
    pub(crate) fn read(row: &BoardRow) -> Result<Self, Vec<Finding>> {
        let read = board::parse(row.file.as_bytes())?;
        let draft = row.draft.as_deref().and_then(|text| draft::parse(text.as_bytes()).ok());
        let (figures, findings) = (BoardFigures::from_board(&read), rules::check(&read));
        let photos = draft.map(|draft| draft.photos).unwrap_or_default();
        Ok(Self { board: read, photos, figures, findings, bytes: 4 * row.file.len() })
    }
}

/// How a board is looked at.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash)]
pub(crate) enum View {
    /// All of it, on the face of its part.
    Whole,
    /// The part and what is near it, on a face, as its own page shows it.
    Near(Face),
    /// The same, smaller, on the face of the part.
    Card,
}

/// The caches.
pub(crate) struct Pictures {
    boards: Cache<i64, Option<Arc<Pictured>>>,
    drawn: Cache<(i64, View, bool), Arc<str>>,
}

impl Default for Pictures {
    fn default() -> Self {
        let size = |bytes: usize| u32::try_from(bytes).unwrap_or(u32::MAX);
        let board = move |_: &i64, kept: &Option<Arc<Pictured>>| size(kept.as_ref().map_or(64, |kept| kept.bytes));
        let boards = Cache::builder().weigher(board).max_capacity(KEPT_BYTES).build();
        let drawn = Cache::builder().weigher(move |_, svg: &Arc<str>| size(svg.len())).max_capacity(KEPT_BYTES).build();
        Self { boards, drawn }
    }
}

/// A version of a board; none where there is none, or where it can't be read.
pub(crate) async fn pictured(app: &App, id: i64) -> Result<Option<Arc<Pictured>>, Refusal> {
    if let Some(kept) = app.pictures.boards.get(&id) {
        return Ok(kept);
    }
    let read = app.reading(move |read| Ok(read.board(id)?.map(|row| Pictured::read(&row)))).await?;
    let Some(read) = read else { return Ok(None) };
    let pictured = read.ok().map(Arc::new);
    app.pictures.boards.insert(id, pictured.clone());
    Ok(pictured)
}

/// A picture of a version, as markup; none where the version can't be read.
pub(crate) async fn drawn(app: &App, id: i64, view: View, visitor: Visitor) -> Result<Option<Arc<str>>, Refusal> {
    let key = (id, view, visitor.is_fahrenheit());
    if let Some(kept) = app.pictures.drawn.get(&key) {
        return Ok(Some(kept));
    }
    let Some(pictured) = pictured(app, id).await? else { return Ok(None) };
    let svg: Arc<str> = draw(&pictured, view, visitor)?.into();
    app.pictures.drawn.insert(key, svg.clone());
    Ok(Some(svg))
}

fn draw(pictured: &Pictured, view: View, visitor: Visitor) -> Result<String, Refusal> {
    let part = pictured.board.connector.face;
    let (face, window, lettering) = match view {
        View::Whole => (part, MapExtent::Whole, 0.0),
        View::Near(face) => (face, MapExtent::Near(18.0), 2.3),
        View::Card => (part, MapExtent::Near(14.0), 3.2),
    };
    let photos = if view == View::Card { &[][..] } else { &pictured.photos };
    let scale = visitor.scale;
    let drawing =
        Drawing { board: &pictured.board, face, window, margins: &[], photos, scale, lettering, overlay: None };
    drawing.draw(None).render().map_err(|error| Refusal::Broken(error.to_string()))
}
