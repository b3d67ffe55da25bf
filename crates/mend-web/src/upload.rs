//! A form with files, measured before it is read: what is too large is answered in words, not by a broken connection.

use std::collections::BTreeMap;

use axum::extract::{FromRequest, Multipart, Request};
use axum::http::header;
use futures_util::StreamExt;
use mend_core::finding::Finding;

use crate::refusal::Refusal;

/// An upload that is too large is still read to its end up to here, so that the browser hears the answer, bytes.
const LONGEST_READ: usize = 512 * 1024 * 1024;
/// What a form takes beside its file, bytes.
const FORM_ROUND_IT: u64 = 16 * 1024;

/// How large a file may be, and what it is called when it is larger.
pub(crate) struct SizeLimit {
    pub(crate) bytes: u64,
    pub(crate) what: &'static str,
}

/// What was sent, by field.
#[derive(Default)]
pub(crate) struct UploadedForm {
    fields: BTreeMap<String, Vec<u8>>,
    names: BTreeMap<String, String>,
}

impl UploadedForm {
    /// The bytes of a file or field; empty where it was not sent.
    pub(crate) fn bytes(&mut self, field: &str) -> Vec<u8> {
        self.fields.remove(field).unwrap_or_default()
    }
    /// A field as text; empty where it was not sent or is none.
    pub(crate) fn text(&self, field: &str) -> String {
        self.fields.get(field).and_then(|bytes| String::from_utf8(bytes.clone()).ok()).unwrap_or_default()
    }
    /// The name of a file.
    pub(crate) fn name(&self, field: &str) -> &str {
        self.names.get(field).map_or("", String::as_str)
    }
}

/// Reads the form; what can't be read is objected to.
pub(crate) async fn read(request: Request, limit: &SizeLimit) -> Result<Result<UploadedForm, Vec<Finding>>, Refusal> {
    let length = request.headers().get(header::CONTENT_LENGTH).and_then(|v| v.to_str().ok()?.parse::<u64>().ok());
    if length.is_none_or(|bytes| bytes > limit.bytes + FORM_ROUND_IT) {
        drain(request).await;
        let size = length.map_or("of unknown size".to_owned(), |bytes| format!("of {:.0} MB", bytes as f64 / 1e6));
        let most = limit.bytes / (1024 * 1024);
        return Err(Refusal::TooLarge(format!("A file {size} is too large: {} has up to {most} MB", limit.what)));
    }
    let object =
        |message: String| vec![Finding::written("upload", "file", message).hint(format!("choose {}", limit.what))];
    let mut form = match Multipart::from_request(request, &()).await {
        Ok(form) => form,
        Err(error) => return Ok(Err(object(error.body_text()))),
    };
    let mut sent = UploadedForm::default();
    loop {
        let field = match form.next_field().await {
            Ok(Some(field)) => field,
            Ok(None) => break,
            Err(error) => return Ok(Err(object(error.body_text()))),
        };
        let name = field.name().unwrap_or_default().to_owned();
        let file = field.file_name().unwrap_or_default().to_owned();
        match field.bytes().await {
            Ok(bytes) => sent.fields.insert(name.clone(), bytes.to_vec()),
            Err(error) => return Ok(Err(object(error.body_text()))),
        };
        sent.names.insert(name, file);
    }
    Ok(Ok(sent))
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
