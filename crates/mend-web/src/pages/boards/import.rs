//! A board from a file, or pasted: every objection at once, and the text stays where it was typed.

use askama::Template;
use askama_web::WebTemplate;
use axum::extract::{FromRequest, Multipart, Request, State};
use axum::http::{StatusCode, header};
use axum::response::{IntoResponse, Redirect, Response};
use futures_util::StreamExt;
use mend_core::finding::Finding;

use crate::App;
use crate::pages::Frame;
use crate::refusal::Refusal;
use crate::visitor::Visitor;

/// Largest upload, bytes: the format's own limit and the form round it.
const LARGEST: u64 = 2 * 1024 * 1024 + 16 * 1024;
/// An upload that is too large is still read to its end up to here, so that the browser hears the answer.
const LONGEST_READ: usize = 256 * 1024 * 1024;

#[derive(Template, WebTemplate)]
#[template(path = "boards/import.html")]
pub(super) struct ImportPage {
    frame: Frame,
    text: String,
    findings: Vec<Finding>,
}

impl ImportPage {
    fn new(visitor: Visitor, text: String, findings: Vec<Finding>) -> Self {
        let frame = Frame::new("Import a board", visitor.scale, "boards", "/boards/import".to_owned());
        Self { frame, text, findings }
    }
}

pub(super) async fn show(visitor: Visitor) -> ImportPage {
    ImportPage::new(visitor, String::new(), vec![])
}

pub(super) async fn take(State(app): State<App>, visitor: Visitor, request: Request) -> Result<Response, Refusal> {
    let text = match upload(request).await? {
        Ok(text) => text,
        Err(findings) => return Ok(refused(visitor, String::new(), findings)),
    };
    let board = match mend_formats::board::parse(text.as_bytes()) {
        Ok(board) => board,
        Err(findings) => return Ok(refused(visitor, text, findings)),
    };
    let (name, file, now) = (board.name.clone(), text.clone(), app.now_ms());
    match app.writing(move |w| w.add_board(&name, &file, now)).await? {
        Some(id) => Ok(Redirect::to(&format!("/boards/{id}")).into_response()),
        None => {
            let object = Finding::blocking("import", "name", format!("the library has a “{}” already", board.name));
            Ok(refused(visitor, text, vec![object.hint("give this one another name")]))
        }
    }
}

fn refused(visitor: Visitor, text: String, findings: Vec<Finding>) -> Response {
    (StatusCode::UNPROCESSABLE_ENTITY, ImportPage::new(visitor, text, findings)).into_response()
}

/// The text that was sent: the file if one was chosen, else what was pasted.
async fn upload(request: Request) -> Result<Result<String, Vec<Finding>>, Refusal> {
    let length = request.headers().get(header::CONTENT_LENGTH).and_then(|v| v.to_str().ok()?.parse::<u64>().ok());
    if length.is_none_or(|bytes| bytes > LARGEST) {
        drain(request).await;
        let size = length.map_or("of unknown size".to_owned(), |bytes| format!("of {:.0} MB", bytes as f64 / 1e6));
        return Err(Refusal::TooLarge(format!("A file {size} is too large: a board file has up to 2 MB")));
    }
    let object = |message: String| {
        vec![Finding::blocking("import", "file", message).hint("choose a board file, or paste its text")]
    };
    let mut form = match Multipart::from_request(request, &()).await {
        Ok(form) => form,
        Err(error) => return Ok(Err(object(error.body_text()))),
    };
    let (mut file, mut pasted) = (String::new(), String::new());
    loop {
        let field = match form.next_field().await {
            Ok(Some(field)) => field,
            Ok(None) => break,
            Err(error) => return Ok(Err(object(error.body_text()))),
        };
        let name = field.name().unwrap_or_default().to_owned();
        let Ok(text) = field.text().await else { return Ok(Err(object("the file is no text".to_owned()))) };
        match name.as_str() {
            "file" => file = text,
            "text" => pasted = text,
            _ => {}
        }
    }
    let text = if file.trim().is_empty() { pasted } else { file };
    Ok(if text.trim().is_empty() { Err(object("nothing was sent".to_owned())) } else { Ok(text) })
}

async fn drain(request: Request) {
    let mut body = request.into_body().into_data_stream();
    let mut read = 0;
    while let Some(Ok(piece)) = body.next().await {
        read += piece.len();
        if read > LONGEST_READ {
            break;
        }
    }
}
