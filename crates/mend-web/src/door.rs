//! The door: which names the application answers to, who may make it compute, and that every refusal is our own page.

use std::sync::Arc;
use std::time::Duration;

use askama::Template;
use askama_web::WebTemplate;
use axum::body::{Body, to_bytes};
use axum::extract::{Request, State};
use axum::http::uri::Authority;
use axum::http::{HeaderMap, Method, StatusCode, header};
use axum::middleware::Next;
use axum::response::{IntoResponse, Response};

use crate::pages::Frame;
use crate::refusal::{self, Refusal};

/// Between two pieces of a body no more may pass than this.
pub(crate) const BODY_PAUSE: Duration = Duration::from_secs(20);
/// Of what is said in plain text of a refusal so much is shown, bytes.
const LONGEST_SAID: usize = 2048;

/// Whom the application answers to besides the names of this machine's own loopback.
#[derive(Debug, Clone, Default)]
pub struct Door {
    /// Host names and addresses, without a port.
    pub hosts: Vec<String>,
}

/// Names of this machine for itself.
const LOOPBACK: [&str; 3] = ["localhost", "127.0.0.1", "[::1]"];

impl Door {
    /// Does a `Host` header name one of ours? A page of another name that was pointed at this address gets nothing.
    fn knows(&self, host: &str) -> bool {
        let Ok(authority) = host.parse::<Authority>() else { return false };
        let name = authority.host();
        let same = |known: &str| known.eq_ignore_ascii_case(name) || format!("[{known}]").eq_ignore_ascii_case(name);
        LOOPBACK.iter().any(|known| same(known)) || self.hosts.iter().any(|known| same(known))
    }
}

/// Lets in what is meant for us.
pub(crate) async fn guard(State(door): State<Arc<Door>>, request: Request, next: Next) -> Response {
    let named = request.headers().get(header::HOST).and_then(|host| host.to_str().ok());
    let named = named.or_else(|| request.uri().authority().map(Authority::as_str));
    if !named.is_some_and(|host| door.knows(host)) {
        let what = "This application does not answer to that name: start it with --host and the name".to_owned();
        return Refusal::Plain(StatusCode::MISDIRECTED_REQUEST, what).into_response();
    }
    if request.method() == Method::GET && is_from_elsewhere(request.headers()) {
        return elsewhere(&request);
    }
    next.run(request).await
}

fn says(headers: &HeaderMap, name: &str, value: &str) -> bool {
    headers.get(name).is_some_and(|message| message.as_bytes() == value.as_bytes())
}

/// Does a page of another site ask? It could make the application compute without end.
fn is_from_elsewhere(headers: &HeaderMap) -> bool {
    says(headers, "sec-fetch-site", "cross-site")
}

/// The page that a link on another site leads to: one more press, made here, and nothing was begun.
#[derive(Template, WebTemplate)]
#[template(path = "elsewhere.html")]
struct ElsewherePage {
    frame: Frame,
    to: String,
}

/// A person who follows a link from another site gets a page with the link; a picture or a script of such a site gets nothing.
fn elsewhere(request: &Request) -> Response {
    if !says(request.headers(), "sec-fetch-mode", "navigate") {
        return Refusal::Plain(StatusCode::FORBIDDEN, "Another site asked for this".to_owned()).into_response();
    }
    let to = request.uri().path_and_query().map_or("/", |path| path.as_str()).to_owned();
    ElsewherePage { frame: Frame::plain("From another site"), to }.into_response()
}

/// Whatever was refused in plain text, by a layer or by axum itself, becomes our page.
pub(crate) async fn in_our_words(response: Response) -> Response {
    let status = response.status();
    let kind = response.headers().get(header::CONTENT_TYPE).map(|kind| kind.as_bytes().to_vec()).unwrap_or_default();
    let is_ours = kind.starts_with(b"text/html") || kind.starts_with(b"application/json");
    if !(status.is_client_error() || status.is_server_error()) || is_ours || refusal::is_refusal(&response) {
        return response;
    }
    let message = to_bytes(response.into_body(), LONGEST_SAID).await.unwrap_or_default();
    let message = String::from_utf8_lossy(&message);
    let title = match message.trim() {
        "" => status.canonical_reason().unwrap_or("Refused").to_owned(),
        message => message.to_owned(),
    };
    Refusal::Plain(status, title).into_response()
}

/// A handler that panicked is a failure like others.
pub(crate) fn panicked(_: Box<dyn std::any::Any + Send>) -> Response<Body> {
    Refusal::Broken("a handler panicked".to_owned()).into_response()
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn only_names_of_ours_are_answered() {
        let door = Door { hosts: vec!["bench.shop".to_owned(), "192.0.2.7".to_owned(), "2001:db8::7".to_owned()] };
        for host in [
            "localhost",
            "LOCALHOST:7340",
            "127.0.0.1:80",
            "[::1]:7340",
            "Bench.Shop",
            "192.0.2.7:1",
            "[2001:db8::7]:7",
        ] {
            assert!(door.knows(host), "{host}");
        }
        for host in ["", "elsewhere.example", "127.0.0.1.elsewhere.example", "bench.shop.elsewhere.example", "a b"] {
            assert!(!door.knows(host), "{host}");
        }
        assert!(!Door::default().knows("192.0.2.7"));
    }
}
