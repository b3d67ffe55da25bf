//! The library of boards.

mod import;
mod show;

use askama::Template;
use askama_web::WebTemplate;
use axum::Router;
use axum::extract::{DefaultBodyLimit, State};
use axum::routing::get;
use mend_core::board::{Board, Face, JointShape};
use mend_formats::board as format;

use crate::App;
use crate::draw::board_map::{BoardMap, Drawing, Window};
use crate::pages::Frame;
use crate::refusal::Refusal;
use crate::visitor::Visitor;

pub(crate) fn routes() -> Router<App> {
    Router::new()
        .route("/boards", get(list))
        // The page measures the upload itself, so that it can answer in words.
        .route("/boards/import", get(import::show).post(import::take).layer(DefaultBodyLimit::disable()))
        .route("/boards/{id}", get(show::show))
}

/// A board as a picture.
pub(crate) struct Tile {
    pub(crate) id: i64,
    pub(crate) name: String,
    pub(crate) maker: String,
    pub(crate) connector: String,
    pub(crate) map: BoardMap,
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
}

impl BoardFigures {
    pub(crate) fn of(board: &Board) -> Self {
        let (bounds, stack, connector) = (board.outline.bounds(), &board.stack, &board.connector);
        let holes = connector.joints.iter().filter(|j| matches!(j.shape, JointShape::Hole { .. })).count();
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
        }
    }
}

/// All boards as pictures.
pub(crate) async fn tiles(app: &App, visitor: Visitor) -> Result<Vec<Tile>, Refusal> {
    let rows = app.reading(|r| r.boards()).await?;
    let tile = |row: &mend_store::BoardRow| {
        let board = format::parse(row.file.as_bytes()).ok()?;
        let face = board.connector.face;
        let map = Drawing {
            board: &board,
            face,
            window: Window::Whole,
            margins: &[],
            scale: visitor.scale,
            lettering: 0.0,
            overlay: None,
        }
        .draw(None);
        Some(Tile {
            id: row.id,
            name: board.name.clone(),
            maker: board.maker.clone(),
            connector: board.connector.name.clone(),
            map,
        })
    };
    Ok(rows.iter().filter_map(tile).collect())
}

#[derive(Template, WebTemplate)]
#[template(path = "boards/boards.html")]
struct BoardsPage {
    frame: Frame,
    tiles: Vec<Tile>,
}

async fn list(State(app): State<App>, visitor: Visitor) -> Result<BoardsPage, Refusal> {
    let tiles = tiles(&app, visitor).await?;
    Ok(BoardsPage { frame: Frame::new("Boards", visitor.scale, "boards", "/boards".to_owned()), tiles })
}

/// Both faces near the connector, and the whole board.
pub(crate) struct Faces {
    pub(crate) top: BoardMap,
    pub(crate) bottom: BoardMap,
    pub(crate) whole: BoardMap,
}

impl Faces {
    pub(crate) fn of(board: &Board, visitor: Visitor) -> Self {
        let draw = |face, (window, lettering)| {
            let (margins, scale) = (&[][..], visitor.scale);
            Drawing { board, face, window, margins, scale, lettering, overlay: None }.draw(None)
        };
        let near = || (Window::Near(18.0), 2.3);
        let whole = draw(board.connector.face, (Window::Whole, 0.0));
        Self { top: draw(Face::Top, near()), bottom: draw(Face::Bottom, near()), whole }
    }
}
