//! Why a request is not answered as asked: the status and words for the visitor, the cause for the log.

use askama::Template;
use askama_web::WebTemplate;
use axum::http::StatusCode;
use axum::response::{IntoResponse, Response};
use mend_core::finding::Finding;
use mend_store::StoreError;

use crate::pages::Frame;

/// A refusal.
#[derive(Debug)]
pub(crate) enum Refusal {
    /// There is no such thing.
    NotFound(&'static str),
    /// What was sent can't be; each objection names field, value and remedy.
    Bad(Vec<Finding>),
    /// A file is larger than it may be.
    TooLarge(String),
    /// The step is not open yet.
    NotYet(&'static str),
    /// Our fault.
    Broken(String),
}

impl From<StoreError> for Refusal {
    fn from(error: StoreError) -> Self {
        Self::Broken(error.to_string())
    }
}

impl From<Vec<Finding>> for Refusal {
    fn from(findings: Vec<Finding>) -> Self {
        Self::Bad(findings)
    }
}

impl Refusal {
    /// One objection about one field.
    pub(crate) fn field(place: &str, message: impl Into<String>, hint: &str) -> Self {
        Self::Bad(vec![Finding::blocking("request", place, message).hint(hint)])
    }
}

/// The page that says so.
#[derive(Template, WebTemplate)]
#[template(path = "refused.html")]
struct RefusedPage {
    frame: Frame,
    title: String,
    findings: Vec<Finding>,
    hint: String,
}

impl IntoResponse for Refusal {
    fn into_response(self) -> Response {
        let (status, title, findings, hint) = match self {
            Self::NotFound(what) => (
                StatusCode::NOT_FOUND,
                format!("There is no such {what}"),
                vec![],
                "Go back to the bench and choose it there.",
            ),
            Self::Bad(findings) => (StatusCode::UNPROCESSABLE_ENTITY, "That can't be taken".to_owned(), findings, ""),
            Self::TooLarge(what) => (StatusCode::PAYLOAD_TOO_LARGE, what, vec![], "Nothing was changed."),
            Self::NotYet(what) => {
                (StatusCode::CONFLICT, what.to_owned(), vec![], "Follow the line of stops from the left.")
            }
            Self::Broken(cause) => {
                // The cause is for the log; the visitor learns only that it was our fault.
                tracing::error!(cause, "request failed");
                let title = "Something broke on our side".to_owned();
                (StatusCode::INTERNAL_SERVER_ERROR, title, vec![], "What was entered before is kept. Try again.")
            }
        };
        let page = RefusedPage { frame: Frame::plain("Refused"), title, findings, hint: hint.to_owned() };
        (status, page).into_response()
    }
}

/// No route of that name.
pub(crate) async fn no_page() -> Refusal {
    Refusal::NotFound("page")
}

/// The route is there, the method is not.
pub(crate) async fn wrong_method() -> Response {
    let page = RefusedPage {
        frame: Frame::plain("Refused"),
        title: "This address does not take that method".to_owned(),
        findings: vec![],
        hint: "Open it from the bench, or send what its form sends.".to_owned(),
    };
    (StatusCode::METHOD_NOT_ALLOWED, page).into_response()
}
