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
    /// What was sent was meant for a state that is past: said in words, with what to do.
    Outdated(String),
    /// The shop has no station yet.
    NoStation,
    /// The job has been handed over.
    Closed,
    /// Too much is being computed.
    Busy,
    /// There is no room left to write.
    Full,
    /// The shop's folder can't be written.
    ReadOnly,
    /// Our fault.
    Broken(String),
    /// Refused before it came to a page: the status, with what was said of it.
    Plain(StatusCode, String),
}

impl From<StoreError> for Refusal {
    fn from(error: StoreError) -> Self {
        match error {
            StoreError::Closed => Self::Closed,
            StoreError::Full(_) => Self::Full,
            StoreError::ReadOnly(_) => Self::ReadOnly,
            other => Self::Broken(other.to_string()),
        }
    }
}

impl From<serde_json::Error> for Refusal {
    fn from(error: serde_json::Error) -> Self {
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

impl Refusal {
    /// What was sent can't be read as what it should be. What is too large stays that.
    pub(crate) fn sent(what: &'static str, (status, why): (StatusCode, String)) -> Self {
        match status {
            StatusCode::PAYLOAD_TOO_LARGE => Self::TooLarge("What was sent is too large".to_owned()),
            _ => Self::field(what, why, "send it as the page does"),
        }
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

/// What is kept of a request that could not be written down.
const KEPT_BY_THE_BROWSER: &str =
    "What was entered before is kept. What you have just entered stays on the page and is sent again.";

impl IntoResponse for Refusal {
    fn into_response(self) -> Response {
        let (status, title, findings, hint) = self.message();
        (status, RefusedPage { frame: Frame::plain("Refused"), title, findings, hint }).into_response()
    }
}

impl Refusal {
    fn message(self) -> (StatusCode, String, Vec<Finding>, String) {
        let plain = |status, title: &str, hint: &str| (status, title.to_owned(), Vec::new(), hint.to_owned());
        match self {
            Self::NotFound(what) => plain(
                StatusCode::NOT_FOUND,
                &format!("There is no such {what}"),
                "Go back to the bench and choose it there.",
            ),
            Self::Bad(findings) => {
                (StatusCode::UNPROCESSABLE_ENTITY, "That can't be taken".to_owned(), findings, String::new())
            }
            Self::TooLarge(what) => plain(StatusCode::PAYLOAD_TOO_LARGE, &what, "Nothing was changed."),
            Self::NotYet(what) => plain(StatusCode::CONFLICT, what, "Follow the line of stops from the left."),
            Self::Outdated(what) => plain(StatusCode::CONFLICT, &what, "Nothing was changed."),
            Self::NoStation => plain(
                StatusCode::CONFLICT,
                "This shop has no hot-air station yet",
                "Add one on the Stations page: every plan is computed for the station that blows.",
            ),
            Self::Closed => plain(
                StatusCode::CONFLICT,
                "This job has been handed over: its record is closed",
                "Reopen it on its handover page, with a reason, to change anything.",
            ),
            Self::Busy => plain(
                StatusCode::SERVICE_UNAVAILABLE,
                "Too many computations are waiting",
                "Nothing is lost. Open this page again in a minute.",
            ),
            Self::Full => plain(
                StatusCode::INSUFFICIENT_STORAGE,
                "The disk is full",
                &format!("Make room on the disk that holds the shop's folder. {KEPT_BY_THE_BROWSER}"),
            ),
            Self::ReadOnly => plain(
                StatusCode::INSUFFICIENT_STORAGE,
                "The shop's folder can't be written",
                &format!("Give the program the right to write its folder. {KEPT_BY_THE_BROWSER}"),
            ),
            Self::Broken(cause) => {
                // The cause is for the log; the visitor learns only that it was our fault.
                tracing::error!(cause, "request failed");
                plain(
                    StatusCode::INTERNAL_SERVER_ERROR,
                    "Something broke on our side",
                    "What was entered before is kept. Try again.",
                )
            }
            Self::Plain(status, what) => plain(status, &what, "Open it from the bench, or send what its form sends."),
        }
    }
}

/// No route of that name.
pub(crate) async fn no_page() -> Refusal {
    Refusal::NotFound("page")
}

/// The route is there, the method is not.
pub(crate) async fn wrong_method() -> Refusal {
    Refusal::Plain(StatusCode::METHOD_NOT_ALLOWED, "This address does not take that method".to_owned())
}
