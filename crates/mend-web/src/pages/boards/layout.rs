//! A layout that was sent: which of its footprints is the part?

use askama::Template;
use askama_web::WebTemplate;
use axum::extract::{Path, State};
use axum::http::StatusCode;
use axum::response::{IntoResponse, Response};
use mend_core::board::{Face, Rect};
use mend_formats::kicad::{self, Footprint, Layout};
use serde::Deserialize;

use super::drafts;
use super::import_notes::{BoardLine, Report, lines};
use crate::App;
use crate::draw::n;
use crate::extract::Form;
use crate::pages::Frame;
use crate::refusal::Refusal;
use crate::visitor::Visitor;
use crate::words::FindingView;

/// A footprint on the picture and in the list.
pub(crate) struct Spot {
    reference: String,
    value: String,
    pads: usize,
    face: &'static str,
    likely: bool,
    x: String,
    y: String,
    width: String,
    height: String,
}

#[derive(Template, WebTemplate)]
#[template(path = "boards/layout.html")]
pub(super) struct LayoutPage {
    frame: Frame,
    id: i64,
    name: String,
    view_box: String,
    outline: String,
    spots: Vec<Spot>,
    /// Connectors first: the part is most likely one of them.
    listed: Vec<Spot>,
    taken: Vec<BoardLine>,
    left_out: Vec<BoardLine>,
    findings: Vec<FindingView>,
}

/// Is it called as connectors are?
fn is_likely(footprint: &Footprint) -> bool {
    let letters: String = footprint.reference.chars().take_while(char::is_ascii_alphabetic).collect();
    matches!(letters.as_str(), "J" | "P" | "CN" | "CON" | "X" | "USB") && footprint.pads.len() > 1
}

fn spot(footprint: &Footprint) -> Option<Spot> {
    let body = footprint.body.filter(|_| !footprint.reference.is_empty())?;
    Some(Spot {
        reference: footprint.reference.clone(),
        value: footprint.value.clone(),
        pads: footprint.pads.len(),
        face: footprint.face.name(),
        likely: is_likely(footprint),
        x: n(body.left()),
        y: n(-body.far()),
        width: n(body.width),
        height: n(body.depth),
    })
}

impl LayoutPage {
    fn new(visitor: Visitor, id: i64, name: String, layout: &Layout) -> Self {
        let frame = Frame::new("Choose the part", visitor.scale, "boards", format!("/boards/layouts/{id}"));
        let bounds = layout.outline.as_ref().map_or(all_bodies(layout), mend_core::board::Outline::bounds);
        let corners = layout.outline.iter().flat_map(|outline| &outline.corners);
        let mut sorted: Vec<&Footprint> = layout.footprints.iter().collect();
        sorted.sort_by_key(|f| (!is_likely(f), std::cmp::Reverse(f.pads.len())));
        Self {
            frame,
            id,
            name,
            view_box: format!(
                "{} {} {} {}",
                n(bounds.left() - 2.0),
                n(-bounds.far() - 2.0),
                n(bounds.width + 4.0),
                n(bounds.depth + 4.0)
            ),
            outline: corners.map(|p| format!("{},{}", n(p.x), n(-p.y))).collect::<Vec<_>>().join(" "),
            spots: layout.footprints.iter().filter(|f| f.face == Face::Top || is_likely(f)).filter_map(spot).collect(),
            listed: sorted.into_iter().filter_map(spot).take(60).collect(),
            taken: lines(&layout.notes.taken),
            left_out: lines(&layout.notes.left_out),
            findings: Vec::new(),
        }
    }
}

fn all_bodies(layout: &Layout) -> Rect {
    let bodies = layout.footprints.iter().filter_map(|f| f.body);
    let nothing = Rect { centre: mend_core::board::Point { x: 50.0, y: 30.0 }, width: 100.0, depth: 60.0 };
    Rect::around(bodies.flat_map(|body| body.corners())).unwrap_or(nothing)
}

async fn load(app: &App, id: &str) -> Result<(i64, String, Layout), Refusal> {
    let id: i64 = id.parse().map_err(|_| Refusal::NotFound("layout"))?;
    let (name, file) = app.reading(move |read| read.layout(id)).await?.ok_or(Refusal::NotFound("layout"))?;
    Ok((id, name, kicad::layout(file.as_bytes())?))
}

pub(super) async fn show(
    State(app): State<App>,
    visitor: Visitor,
    Path(id): Path<String>,
) -> Result<LayoutPage, Refusal> {
    let (id, name, layout) = load(&app, &id).await?;
    Ok(LayoutPage::new(visitor, id, name, &layout))
}

/// The footprint that is replaced.
#[derive(Deserialize)]
pub(super) struct LayoutForm {
    reference: String,
}

pub(super) async fn choose(
    State(app): State<App>,
    visitor: Visitor,
    Path(id): Path<String>,
    Form(chosen): Form<LayoutForm>,
) -> Result<Response, Refusal> {
    let (id, name, layout) = load(&app, &id).await?;
    match kicad::draft(&layout, &name, &chosen.reference) {
        Ok((draft, notes)) => {
            let draft_id = drafts::begin(&app, None, None, &draft).await?;
            let title = format!("{} with {} components", chosen.reference, draft.components.len());
            let onward = format!("/boards/drafts/{draft_id}?show=part");
            Ok(Report::new(&title, &notes.and(&layout.notes), visitor, onward).into_response())
        }
        Err(findings) => {
            let page = LayoutPage::new(visitor, id, name, &layout);
            let page = LayoutPage { findings: visitor.words().findings(&findings), ..page };
            Ok((StatusCode::UNPROCESSABLE_ENTITY, page).into_response())
        }
    }
}
