//! The library of boards.

mod compare;
mod connectors;
pub(crate) mod drafts;
mod import;
mod layout;
mod outcomes;
pub(crate) mod said;
mod show;

use askama::Template;
use askama_web::WebTemplate;
use axum::Router;
use axum::extract::{DefaultBodyLimit, State};
use axum::routing::get;
use mend_core::board::draft::Photo;
use mend_core::board::{Board, Face};
use mend_core::finding::Severity;
use mend_formats::board as format;
use mend_store::BoardRow;

use crate::App;
use crate::draw::agreement::Agreement;
use crate::draw::board_map::{BoardMap, Drawing, Window};
use crate::pages::Frame;
use crate::refusal::Refusal;
use crate::visitor::Visitor;

pub(crate) fn routes() -> Router<App> {
    Router::new()
        .route("/boards", get(list))
        // The page measures the upload itself, so that it can answer in words.
        .route("/boards/import", get(import::show).post(import::take).layer(DefaultBodyLimit::disable()))
        .route("/boards/connectors", get(connectors::show))
        .route("/boards/layouts/{id}", get(layout::show).post(layout::choose))
        .route("/boards/{model}", get(show::newest))
        .route("/boards/{model}/versions/{version}", get(show::version))
        .route("/boards/{model}/versions/{version}/file", get(show::file))
        .route("/boards/{model}/compare", get(compare::show))
        .merge(drafts::routes())
}

/// A version as the library shows it.
pub(crate) struct Pictured {
    pub(crate) board: Board,
    pub(crate) photos: Vec<Photo>,
}

impl Pictured {
    /// The board of a row, with the photographs that it was traced over.
    pub(crate) fn read(row: &BoardRow) -> Result<Self, Refusal> {
        let board = format::parse(row.file.as_bytes())?;
        let draft = row.draft.as_deref().and_then(|draft| mend_formats::draft::parse(draft.as_bytes()).ok());
        Ok(Self { board, photos: draft.map(|draft| draft.photos).unwrap_or_default() })
    }
}

/// A board as a picture.
pub(crate) struct Tile {
    /// The newest version.
    pub(crate) id: i64,
    pub(crate) model: i64,
    pub(crate) version: i64,
    pub(crate) name: String,
    pub(crate) maker: String,
    pub(crate) connector: String,
    pub(crate) map: BoardMap,
    pub(crate) said: String,
    pub(crate) agreement: Option<Agreement>,
}

/// What is said of a board in figures.
pub(crate) struct BoardFigures {
    pub(crate) name: String,
    pub(crate) maker: String,
    pub(crate) size: String,
    pub(crate) stack: String,
    pub(crate) conduction: String,
    pub(crate) connector: String,
    pub(crate) joints: String,
    pub(crate) neighbours: usize,
    pub(crate) tests: Vec<String>,
}

impl BoardFigures {
    pub(crate) fn of(board: &Board) -> Self {
        let (bounds, stack, connector) = (board.outline.bounds(), &board.stack, &board.connector);
        let holes = connector.joints.iter().filter(|j| j.shape.is_hole()).count();
        let hidden = connector.joints.iter().filter(|j| j.hidden).count();
        let pads = connector.joints.len() - holes;
        let mut joints = vec![];
        for (count, what) in [(pads, "pads"), (holes, "plated legs"), (hidden, "of them hidden")] {
            if count > 0 {
                joints.push(format!("{count} {what}"));
            }
        }
        Self {
            name: board.name.clone(),
            maker: board.maker.clone(),
            size: format!("{:.0} x {:.0} mm, {} mm thick", bounds.width, bounds.depth, stack.thickness.in_mm()),
            stack: format!("{} copper layers, {} planes, {} µm foil", stack.layers, stack.planes, stack.foil_um),
            conduction: format!("{:.0} W/mK along, {:.1} W/mK through", stack.in_plane(), stack.through()),
            connector: format!("{}, {}", connector.name, connector.material.name()),
            joints: joints.join(", "),
            neighbours: board.neighbours.len(),
            tests: connector.tests.clone(),
        }
    }
}

/// All boards as pictures.
pub(crate) async fn tiles(app: &App, visitor: Visitor) -> Result<Vec<Tile>, Refusal> {
    let rows = app.reading(|r| r.boards()).await?;
    let mut outcomes = outcomes::outcomes(app).await?;
    let mut tile = |row: &BoardRow| {
        let Pictured { board, photos } = Pictured::read(row).ok()?;
        let (face, window, scale) = (board.connector.face, Window::Whole, visitor.scale);
        let drawing = Drawing {
            board: &board,
            face,
            window,
            margins: &[],
            photos: &photos,
            scale,
            lettering: 0.0,
            overlay: None,
        };
        let map = drawing.draw(None);
        let outcome = outcomes.remove(&row.model_id).unwrap_or_default();
        Some(Tile {
            id: row.id,
            model: row.model_id,
            version: row.version,
            name: board.name.clone(),
            maker: board.maker.clone(),
            connector: board.connector.name.clone(),
            map,
            said: outcome.said(),
            agreement: outcome.picture(),
        })
    };
    Ok(rows.iter().filter_map(&mut tile).collect())
}

/// A draft that was begun.
struct Begun {
    id: i64,
    name: String,
    said: String,
}

#[derive(Template, WebTemplate)]
#[template(path = "boards/boards.html")]
struct BoardsPage {
    frame: Frame,
    tiles: Vec<Tile>,
    begun: Vec<Begun>,
}

async fn list(State(app): State<App>, visitor: Visitor) -> Result<BoardsPage, Refusal> {
    let tiles = tiles(&app, visitor).await?;
    let drafts = app.reading(|read| read.drafts()).await?;
    let begun = drafts.iter().filter_map(|row| {
        let draft = mend_formats::draft::parse(row.draft.as_bytes()).ok()?;
        let missing = draft.findings().iter().filter(|f| f.severity == Severity::Blocking).count();
        let said = if missing > 0 { format!("{missing} to mend") } else { "ready to be kept".to_owned() };
        Some(Begun { id: row.id, name: if draft.name.is_empty() { "New board".to_owned() } else { draft.name }, said })
    });
    let frame = Frame::new("Boards", visitor.scale, "boards", "/boards".to_owned());
    Ok(BoardsPage { frame, tiles, begun: begun.collect() })
}

/// Both faces near the connector, and the whole board.
pub(crate) struct Faces {
    pub(crate) top: BoardMap,
    pub(crate) bottom: BoardMap,
    pub(crate) whole: BoardMap,
}

impl Faces {
    pub(crate) fn of(board: &Board, photos: &[Photo], visitor: Visitor) -> Self {
        let draw = |face, (window, lettering)| {
            let (margins, scale) = (&[][..], visitor.scale);
            Drawing { board, face, window, margins, photos, scale, lettering, overlay: None }.draw(None)
        };
        let near = || (Window::Near(18.0), 2.3);
        let whole = draw(board.connector.face, (Window::Whole, 0.0));
        Self { top: draw(Face::Top, near()), bottom: draw(Face::Bottom, near()), whole }
    }
}
