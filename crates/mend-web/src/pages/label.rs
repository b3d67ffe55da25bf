//! Labels to be printed and stuck on: a job, the bag of what is the customer's own, a station. The code leads to its page.

use askama::Template;
use askama_web::WebTemplate;
use axum::Router;
use axum::extract::{Path, State};
use axum::http::{HeaderMap, header};
use axum::routing::get;
use mend_core::opening::item::ItemKind;
use qrcode::{EcLevel, QrCode};

use super::Frame;
use crate::App;
use crate::job::{Job, JobOpening};
use crate::refusal::Refusal;
use crate::visitor::Visitor;

/// White round the code, modules (ISO/IEC 18004, 9.1: four).
const QUIET: usize = 4;

pub(crate) fn routes() -> Router<App> {
    Router::new()
        .route("/jobs/{id}/label", get(of_job))
        .route("/jobs/{id}/label/bag", get(of_bag))
        .route("/stations/{id}/label", get(of_station))
        .route("/stock/{id}/label", get(of_item))
}

/// A code as one path of squares.
struct Code {
    side: usize,
    path: String,
}

impl Code {
    fn of(address: &str) -> Result<Self, Refusal> {
        let code = QrCode::with_error_correction_level(address, EcLevel::M);
        let code = code.map_err(|error| Refusal::Broken(error.to_string()))?;
        let width = code.width();
        let dark = code.to_colors().into_iter().enumerate().filter(|(_, colour)| *colour == qrcode::Color::Dark);
        let square = |k: usize| format!("M{} {}h1v1h-1z", QUIET + k % width, QUIET + k / width);
        Ok(Self { side: width + 2 * QUIET, path: dark.map(|(k, _)| square(k)).collect() })
    }
}

#[derive(Template, WebTemplate)]
#[template(path = "label.html")]
struct LabelPage {
    frame: Frame,
    title: String,
    lines: Vec<String>,
    address: String,
    code: Code,
    back: String,
}

/// What stands on one.
struct LabelWanted {
    title: String,
    lines: Vec<String>,
    /// The page that it leads to.
    path: String,
    here: String,
}

impl LabelPage {
    fn new(wanted: LabelWanted, visitor: Visitor, headers: &HeaderMap) -> Result<Self, Refusal> {
        let LabelWanted { title, mut lines, path, here } = wanted;
        lines.retain(|line| !line.is_empty());
        let host = headers.get(header::HOST).and_then(|host| host.to_str().ok()).unwrap_or("127.0.0.1");
        let address = format!("http://{host}{path}");
        let frame = Frame::new(format!("Label: {title}"), visitor.scale, "bench", here);
        Ok(Self { frame, title, lines, code: Code::of(&address)?, address, back: path })
    }
}

async fn job(app: &App, Path(id): Path<String>) -> Result<Job, Refusal> {
    Job::load(app, id.parse().map_err(|_| Refusal::NotFound("job"))?).await
}

async fn of_job(
    State(app): State<App>,
    visitor: Visitor,
    path: Path<String>,
    headers: HeaderMap,
) -> Result<LabelPage, Refusal> {
    let job = job(&app, path).await?;
    let id = job.row.id;
    let due = Some(job.intake("due")).filter(|due| !due.is_empty()).map_or(String::new(), |due| format!("Due {due}"));
    let lines = [job.device(), job.intake("customer"), job.intake("serial"), &due].map(str::to_owned).into();
    let wanted = LabelWanted {
        title: format!("Job {id}"),
        lines,
        path: format!("/jobs/{id}"),
        here: format!("/jobs/{id}/label"),
    };
    LabelPage::new(wanted, visitor, &headers)
}

async fn of_bag(
    State(app): State<App>,
    visitor: Visitor,
    path: Path<String>,
    headers: HeaderMap,
) -> Result<LabelPage, Refusal> {
    let job = job(&app, path).await?;
    let id = job.row.id;
    // What the map says is theirs goes into the bag by name; what the counter was told stands above it.
    let mut lines: Vec<String> = [job.intake("customer"), job.intake("inside")].map(str::to_owned).into();
    lines.extend(job.opening.iter().flat_map(own_parts));
    let wanted = LabelWanted {
        title: format!("Bag of job {id}"),
        lines,
        path: format!("/jobs/{id}"),
        here: format!("/jobs/{id}/label/bag"),
    };
    LabelPage::new(wanted, visitor, &headers)
}

/// The customer's own parts on an opening map, by what is noted of each.
fn own_parts(opening: &JobOpening) -> Vec<String> {
    let own = opening.map.items.iter().filter(|item| item.what == ItemKind::Own);
    own.map(|item| if item.note.is_empty() { "part of their own".to_owned() } else { item.note.clone() }).collect()
}

async fn of_item(
    State(app): State<App>,
    visitor: Visitor,
    Path(id): Path<String>,
    headers: HeaderMap,
) -> Result<LabelPage, Refusal> {
    let id: i64 = id.parse().map_err(|_| Refusal::NotFound("item"))?;
    let row = app.reading(move |read| read.item(id)).await?.ok_or(Refusal::NotFound("item"))?;
    let item = mend_formats::item::parse(row.file.as_bytes())?;
    let attributes = item.attributes.iter().map(|a| format!("{} {}", a.name, a.value));
    let lines = attributes.chain([item.fits.join(", "), item.supplier]).collect();
    let wanted =
        LabelWanted { title: row.name, lines, path: format!("/stock/{id}"), here: format!("/stock/{id}/label") };
    LabelPage::new(wanted, visitor, &headers)
}

async fn of_station(
    State(app): State<App>,
    visitor: Visitor,
    Path(id): Path<String>,
    headers: HeaderMap,
) -> Result<LabelPage, Refusal> {
    let id: i64 = id.parse().map_err(|_| Refusal::NotFound("station"))?;
    let rows = app.reading(|read| read.stations()).await?;
    let row = rows.into_iter().find(|row| row.id == id).ok_or(Refusal::NotFound("station"))?;
    let wanted = LabelWanted {
        title: row.name,
        lines: vec!["Its flow, its air, its probe".to_owned()],
        path: format!("/stations/{id}"),
        here: format!("/stations/{id}/label"),
    };
    LabelPage::new(wanted, visitor, &headers)
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_code_has_its_three_corners_and_its_white() {
        let code = Code::of("http://127.0.0.1:7340/jobs/5/intake").expect("short enough");
        assert!(code.path.starts_with("M4 4h1v1h-1z"), "nothing dark in the quiet zone");
        let last = code.side - QUIET - 1;
        for corner in [format!("M{last} 4h"), format!("M4 {last}h")] {
            assert!(code.path.contains(&corner), "{corner}");
        }
    }
}
