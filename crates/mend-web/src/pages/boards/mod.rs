//! The library of boards.

mod compare;
mod connectors;
pub(crate) mod drafts;
mod import;
pub(crate) mod import_notes;
mod layout;
mod outcomes;
mod show;
mod taught;

use std::sync::Arc;

use askama::Template;
use askama_web::WebTemplate;
use axum::Router;
use axum::extract::{DefaultBodyLimit, State};
use axum::routing::get;
use mend_core::board::{Board, Face};
use mend_core::finding::Severity;
use mend_store::DraftRow;

use crate::App;
use crate::draw::agreement::Agreement;
use crate::pages::Frame;
use crate::pictures::{View, drawn, pictured};
use crate::refusal::Refusal;
use crate::visitor::Visitor;

/// Releases that a picture of a model shows: the newest.
const SHOWN_RELEASES: u32 = 6;

pub(crate) fn routes() -> Router<App> {
    Router::new()
        .route("/boards", get(list))
        // The page measures the upload itself, so that it can answer in words.
        .route("/boards/import", get(import::show).post(import::take).layer(DefaultBodyLimit::disable()))
        .route("/boards/connectors", get(connectors::show))
        .route("/boards/layouts/{id}", get(layout::show).post(layout::choose))
        .route("/boards/{model}", get(show::newest))
        .route("/boards/{model}/revisions/{version}", get(show::version))
        .route("/boards/{model}/revisions/{version}/file", get(show::file))
        .route("/boards/{model}/compare", get(compare::show))
        .merge(drafts::routes())
}

/// A model as a picture.
pub(crate) struct Tile {
    /// The newest version.
    pub(crate) id: i64,
    pub(crate) model: i64,
    pub(crate) version: i64,
    pub(crate) name: String,
    /// Its picture with maker and connector; none where it can't be read.
    pub(crate) shown: Option<FaceQuery>,
    pub(crate) summary: String,
    pub(crate) agreement: Option<Agreement>,
}

/// What is shown of a board that can be read.
pub(crate) struct FaceQuery {
    pub(crate) maker: String,
    pub(crate) connector: String,
    pub(crate) map: Arc<str>,
}

/// What is said of a board in figures.
#[derive(Clone)]
pub(crate) struct BoardFigures {
    pub(crate) name: String,
    pub(crate) maker: String,
    pub(crate) size: String,
    pub(crate) stack: String,
    pub(crate) conduction: String,
    pub(crate) connector: String,
    pub(crate) joints: String,
    pub(crate) components: usize,
    pub(crate) tests: Vec<String>,
}

impl BoardFigures {
    pub(crate) fn from_board(board: &Board) -> Self {
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
            components: board.components.len(),
            tests: connector.tests.clone(),
        }
    }
}

/// All boards as pictures.
pub(crate) async fn tiles(app: &App, visitor: Visitor) -> Result<Vec<Tile>, Refusal> {
    let read = |read: mend_store::Read<'_>| {
        let models = read.models()?.into_iter();
        models.map(|model| Ok((read.releases(model.id, SHOWN_RELEASES)?, model))).collect::<Result<Vec<_>, _>>()
    };
    let mut tiles = Vec::new();
    for (releases, model) in app.reading(read).await? {
        let map = drawn(app, model.board_id, View::Whole, visitor).await?;
        let shown = pictured(app, model.board_id).await?.zip(map).map(|(pictured, map)| FaceQuery {
            maker: pictured.board.maker.clone(),
            connector: pictured.board.connector.name.clone(),
            map,
        });
        tiles.push(Tile {
            id: model.board_id,
            model: model.id,
            version: model.version,
            summary: outcomes::summary(&model),
            agreement: outcomes::picture(&releases),
            name: model.name,
            shown,
        });
    }
    Ok(tiles)
}

/// A draft that was begun.
struct Begun {
    id: i64,
    name: String,
    summary: String,
}

impl Begun {
    fn from_row(row: &DraftRow) -> Self {
        let Ok(draft) = mend_formats::draft::parse(row.draft.as_bytes()) else {
            let summary = "can't be read: undo its last steps, or restore a backup".to_owned();
            return Self { id: row.id, name: format!("Draft {}", row.id), summary };
        };
        let missing = draft.findings().iter().filter(|f| f.severity == Severity::Blocking).count();
        let summary = if missing > 0 { format!("{missing} to mend") } else { "ready to be kept".to_owned() };
        Self { id: row.id, name: if draft.name.is_empty() { "New board".to_owned() } else { draft.name }, summary }
    }
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
    let begun = app.reading(|read| Ok(read.drafts()?.iter().map(Begun::from_row).collect())).await?;
    let frame = Frame::new("Boards", visitor.scale, "boards", "/boards".to_owned());
    Ok(BoardsPage { frame, tiles, begun })
}

/// Both faces near the connector, and the whole board, as markup.
pub(crate) struct Faces {
    pub(crate) top: Arc<str>,
    pub(crate) bottom: Arc<str>,
    pub(crate) whole: Arc<str>,
}

impl Faces {
    /// The faces of a version of a board that can be read.
    pub(crate) async fn load(app: &App, board: i64, visitor: Visitor) -> Result<Self, Refusal> {
        let face = |view| async move {
            drawn(app, board, view, visitor).await?.ok_or(Refusal::NotYet("This board can't be read"))
        };
        let (top, bottom) = (face(View::Near(Face::Top)).await?, face(View::Near(Face::Bottom)).await?);
        Ok(Self { top, bottom, whole: face(View::Whole).await? })
    }
}
