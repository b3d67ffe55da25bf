//! Why a request is not answered as asked: the status and words for the visitor, the cause for the log.

use std::sync::Arc;

use askama::Template;
use askama_web::WebTemplate;
use axum::Extension;
use axum::extract::{Request, State};
use axum::http::StatusCode;
use axum::middleware::Next;
use axum::response::{IntoResponse, Response};
use mend_core::finding::Finding;
use mend_core::shop::people::Permission;
use mend_store::StoreError;

use crate::App;
use crate::pages::Frame;
use crate::visitor::Visitor;
use crate::words::FindingView;

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
    /// Nobody is signed in.
    SignIn,
    /// Whoever is signed in may not do that.
    NotAllowed(Permission),
    /// Too many wrong secrets: not before so many ms.
    Wait(i64),
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
        Self::Bad(vec![Finding::written("request", place, message).hint(hint)])
    }
}

impl Refusal {
    /// What was sent can't be read as what it should be. What is too large stays that.
    pub(crate) fn sent(what: &'static str, status: StatusCode, why: String) -> Self {
        match status {
            StatusCode::PAYLOAD_TOO_LARGE => Self::TooLarge("What was sent is too large".to_owned()),
            _ => Self::field(what, why, "send it as the page does"),
        }
    }
}

/// What somebody may or may not do, in words.
fn permission_name(permission: Permission) -> &'static str {
    match permission {
        Permission::Enter => "Coming in",
        Permission::Counter => "Work at the counter",
        Permission::Bench => "Work at the bench",
        Permission::BenchSettings => "Changing stations and equipment",
        Permission::Override => "Going on against the arithmetic",
        Permission::Shop => "Changing the shop's settings and people",
    }
}

/// The page that says so.
#[derive(Template, WebTemplate)]
#[template(path = "refused.html")]
struct RefusedPage {
    frame: Frame,
    title: String,
    findings: Vec<FindingView>,
    hint: String,
}

/// What is kept of a request that could not be written down.
const KEPT_BY_THE_BROWSER: &str =
    "What was entered before is kept. What you have just entered stays on the page and is sent again.";

impl IntoResponse for Refusal {
    /// The status, and itself: its page is made by [`worded`], which knows the visitor.
    fn into_response(self) -> Response {
        (self.status(), Extension(Arc::new(self))).into_response()
    }
}

/// Puts every refusal into words, in the visitor's scale. Whatever else is answered passes.
pub(crate) async fn worded(State(_): State<App>, visitor: Visitor, request: Request, next: Next) -> Response {
    let mut response = next.run(request).await;
    match response.extensions_mut().remove::<Arc<Refusal>>() {
        Some(refusal) => (response.status(), refusal.page(visitor)).into_response(),
        None => response,
    }
}

/// Is it a refusal that is yet to be put into words?
pub(crate) fn is_refusal(response: &Response) -> bool {
    response.extensions().get::<Arc<Refusal>>().is_some()
}

impl Refusal {
    fn status(&self) -> StatusCode {
        match self {
            Self::NotFound(_) => StatusCode::NOT_FOUND,
            Self::Bad(_) => StatusCode::UNPROCESSABLE_ENTITY,
            Self::TooLarge(_) => StatusCode::PAYLOAD_TOO_LARGE,
            Self::NotYet(_) | Self::Outdated(_) | Self::NoStation | Self::Closed => StatusCode::CONFLICT,
            Self::SignIn => StatusCode::UNAUTHORIZED,
            Self::NotAllowed(_) => StatusCode::FORBIDDEN,
            Self::Wait(_) => StatusCode::TOO_MANY_REQUESTS,
            Self::Busy => StatusCode::SERVICE_UNAVAILABLE,
            Self::Full | Self::ReadOnly => StatusCode::INSUFFICIENT_STORAGE,
            Self::Broken(cause) => {
                // The cause is for the log; the visitor learns only that it was our fault.
                tracing::error!(cause, "request failed");
                StatusCode::INTERNAL_SERVER_ERROR
            }
            Self::Plain(status, _) => *status,
        }
    }

    fn page(&self, visitor: Visitor) -> RefusedPage {
        let findings = match self {
            Self::Bad(findings) => visitor.words().findings(findings),
            _ => Vec::new(),
        };
        let frame = Frame::new("Refused", visitor.scale, "", "/".to_owned());
        RefusedPage { frame, title: self.title(), findings, hint: self.hint() }
    }

    fn title(&self) -> String {
        match self {
            Self::NotFound(what) => format!("There is no such {what}"),
            Self::Bad(_) => "That can't be taken".to_owned(),
            Self::TooLarge(what) | Self::Outdated(what) | Self::Plain(_, what) => what.clone(),
            Self::NotYet(what) => (*what).to_owned(),
            Self::NoStation => "This shop has no hot-air station yet".to_owned(),
            Self::Closed => "This job has been handed over: its record is closed".to_owned(),
            Self::SignIn => "Nobody is signed in".to_owned(),
            Self::NotAllowed(what) => format!("{} is not yours to do", permission_name(*what)),
            Self::Wait(_) => "Too many wrong tries".to_owned(),
            Self::Busy => "Too many computations are waiting".to_owned(),
            Self::Full => "The disk is full".to_owned(),
            Self::ReadOnly => "The shop's folder can't be written".to_owned(),
            Self::Broken(_) => "Something broke on our side".to_owned(),
        }
    }

    fn hint(&self) -> String {
        match self {
            Self::NotFound(_) => "Go back to the bench and choose it there.".to_owned(),
            Self::Bad(_) => String::new(),
            Self::TooLarge(_) | Self::Outdated(_) => "Nothing was changed.".to_owned(),
            Self::NotYet(_) => "Follow the line of stops from the left.".to_owned(),
            Self::NoStation => {
                "Add one on the Stations page: every plan is computed for the station that blows.".to_owned()
            }
            Self::Closed => "Reopen it on its handover page, with a reason, to change anything.".to_owned(),
            Self::SignIn => "Sign in; what was entered is kept in this browser and sent again.".to_owned(),
            Self::NotAllowed(_) => "Ask somebody who may, or sign in as somebody else at the top.".to_owned(),
            Self::Wait(ms) => format!("Wait {} s and try again.", (ms + 999) / 1000),
            Self::Busy => "Nothing is lost. Open this page again in a minute.".to_owned(),
            Self::Full => format!("Make room on the disk that holds the shop's folder. {KEPT_BY_THE_BROWSER}"),
            Self::ReadOnly => format!("Give the program the right to write its folder. {KEPT_BY_THE_BROWSER}"),
            Self::Broken(_) => "What was entered before is kept. Try again.".to_owned(),
            Self::Plain(..) => "Open it from the bench, or send what its form sends.".to_owned(),
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
