//! A file from outside, or pasted text: a board of our own format, a connector, a layout or a footprint. Every objection at
//! once, and the text stays where it was typed.

use askama::Template;
use askama_web::WebTemplate;
use axum::extract::{Request, State};
use axum::http::StatusCode;
use axum::response::{IntoResponse, Redirect, Response};
use mend_core::finding::Finding;
use mend_formats::{connector, kicad};
use mend_store::NewBoard;

use super::import_notes::Report;
use crate::App;
use crate::pages::Frame;
use crate::refusal::Refusal;
use crate::upload::{self, SizeLimit};
use crate::visitor::Visitor;
use crate::words::FindingView;

const FILE: SizeLimit = SizeLimit { bytes: 24 * 1024 * 1024, what: "a board or layout file" };
/// Longer texts are not put back into the page when they are refused, bytes.
const LONGEST_SHOWN: usize = 200_000;

#[derive(Template, WebTemplate)]
#[template(path = "boards/import.html")]
pub(super) struct ImportPage {
    frame: Frame,
    text: String,
    findings: Vec<FindingView>,
}

impl ImportPage {
    fn new(visitor: Visitor, text: String, findings: &[Finding]) -> Self {
        let frame = Frame::new("Import a board", visitor.scale, "boards", "/boards/import".to_owned());
        Self {
            frame,
            text: if text.len() > LONGEST_SHOWN { String::new() } else { text },
            findings: visitor.words().findings(findings),
        }
    }
}

pub(super) async fn show(visitor: Visitor) -> ImportPage {
    ImportPage::new(visitor, String::new(), &[])
}

pub(super) async fn take(State(app): State<App>, visitor: Visitor, request: Request) -> Result<Response, Refusal> {
    let (text, file) = match upload::read(request, &FILE).await? {
        Ok(sent) => {
            let file = sent.text("file");
            if file.trim().is_empty() {
                (sent.text("text"), String::new())
            } else {
                (file, sent.name("file").to_owned())
            }
        }
        Err(findings) => return Ok(refused(visitor, String::new(), &findings)),
    };
    let read = match ImportKind::from_text(&text) {
        ImportKind::Nothing => Err(vec![
            Finding::written("import", "file", "nothing was sent, or it is no text")
                .hint("choose a board file, or paste its text"),
        ]),
        ImportKind::Layout => layout(&app, &text, &file).await?,
        ImportKind::Footprint => footprint(&app, visitor, &text).await?,
        ImportKind::Connector => own_connector(&app, &text).await?,
        ImportKind::Board => board(&app, &text).await?,
    };
    Ok(read.unwrap_or_else(|findings| refused(visitor, text, &findings)))
}

fn refused(visitor: Visitor, text: String, findings: &[Finding]) -> Response {
    (StatusCode::UNPROCESSABLE_ENTITY, ImportPage::new(visitor, text, findings)).into_response()
}

/// What a text is, by how it begins.
#[derive(Debug, PartialEq)]
enum ImportKind {
    Nothing,
    Layout,
    Footprint,
    Connector,
    Board,
}

impl ImportKind {
    fn from_text(text: &str) -> Self {
        let begins: String = text.trim_start().chars().take(400).collect();
        match begins.trim_start_matches('(').trim_start() {
            "" => Self::Nothing,
            _ if begins.starts_with('(') && begins.contains("kicad_pcb") => Self::Layout,
            _ if begins.starts_with('(') => Self::Footprint,
            _ if begins.contains(connector::FORMAT) => Self::Connector,
            _ => Self::Board,
        }
    }
}

type ImportResult = Result<Response, Vec<Finding>>;

async fn board(app: &App, text: &str) -> Result<ImportResult, Refusal> {
    let board = match mend_formats::board::parse(text.as_bytes()) {
        Ok(board) => board,
        Err(findings) => return Ok(Err(findings)),
    };
    let (new, now) = (NewBoard { name: board.name.clone(), file: text.to_owned(), draft: None }, app.now_ms());
    Ok(match app.writing(move |w| w.add_board(&new, now)).await? {
        Some(row) => Ok(Redirect::to(&format!("/boards/{}", row.model_id)).into_response()),
        None => Err(taken("library", &board.name)),
    })
}

fn taken(place: &str, name: &str) -> Vec<Finding> {
    let object = Finding::written("import", "name", format!("the {place} has a “{name}” already"));
    vec![object.hint("give this one another name")]
}

async fn own_connector(app: &App, text: &str) -> Result<ImportResult, Refusal> {
    let connector = match connector::parse(text.as_bytes()) {
        Ok(connector) => connector,
        Err(findings) => return Ok(Err(findings)),
    };
    keep_connector(app, &connector).await.map(|kept| kept.map(|()| Redirect::to("/boards/connectors").into_response()))
}

async fn keep_connector(
    app: &App,
    connector: &mend_core::board::Connector,
) -> Result<Result<(), Vec<Finding>>, Refusal> {
    let (name, file, now) = (connector.name.clone(), connector::write(connector)?, app.now_ms());
    let added = app.writing(move |write| write.add_connector(&name, &file, now)).await?;
    Ok(added.map(|_| ()).ok_or_else(|| taken("shop", &connector.name)))
}

async fn footprint(app: &App, visitor: Visitor, text: &str) -> Result<ImportResult, Refusal> {
    let read = kicad::footprint(text.as_bytes()).and_then(|(footprint, mut notes)| {
        let connector = kicad::connector(&footprint, &mut notes)?;
        Ok((connector, notes))
    });
    let (connector, notes) = match read {
        Ok(read) => read,
        Err(findings) => return Ok(Err(findings)),
    };
    let title = format!("{}, {} joints, is in the shop's library", connector.name, connector.joints.len());
    let onward = "/boards/connectors".to_owned();
    let kept = keep_connector(app, &connector).await?;
    Ok(kept.map(|()| Report::new(&title, &notes, visitor, onward).into_response()))
}

async fn layout(app: &App, text: &str, file: &str) -> Result<ImportResult, Refusal> {
    let (checked, text) = (text.to_owned(), text.to_owned());
    let read = tokio::task::spawn_blocking(move || kicad::layout(checked.as_bytes()).map(|_| ())).await;
    if let Err(findings) = read.map_err(|error| Refusal::Broken(error.to_string()))? {
        return Ok(Err(findings));
    }
    let name = file.rsplit('/').next().unwrap_or(file).trim_end_matches(".kicad_pcb");
    let name: String = if name.is_empty() { "Imported board".to_owned() } else { name.chars().take(80).collect() };
    let now = app.now_ms();
    let id = app.writing(move |write| write.add_layout(&name, &text, now)).await?;
    Ok(Ok(Redirect::to(&format!("/boards/layouts/{id}")).into_response()))
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_text_is_known_by_how_it_begins() {
        let kinds = [
            "",
            " \n(kicad_pcb (version 1)",
            "(footprint \"a\"",
            "{\"format\": \"urgent-mend/connector/1\"",
            "{\"format\": \"x\"",
        ];
        let found = kinds.map(ImportKind::from_text);
        assert_eq!(
            found,
            [ImportKind::Nothing, ImportKind::Layout, ImportKind::Footprint, ImportKind::Connector, ImportKind::Board]
        );
    }
}
